/** Accounts, sign-in, and who may do what. */
@NullMarked
package dev.paseo.service.access;

import org.jspecify.annotations.NullMarked;
