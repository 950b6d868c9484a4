/** What people are told about: in the console and by mail, at once or gathered. */
@NullMarked
package dev.paseo.service.notice;

import org.jspecify.annotations.NullMarked;
