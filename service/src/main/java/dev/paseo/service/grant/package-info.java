/** What components may name of secrets, and who agrees to it. */
@NullMarked
package dev.paseo.service.grant;

import org.jspecify.annotations.NullMarked;
