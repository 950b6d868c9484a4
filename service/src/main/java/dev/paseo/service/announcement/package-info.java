/**
 * Events told to others: CloudEvents with the CDEvents vocabulary, signed per Standard Webhooks, and every attempt to
 * deliver them.
 */
@NullMarked
package dev.paseo.service.announcement;

import org.jspecify.annotations.NullMarked;
