/** What steps print, kept in blocks, looked at and searched. */
@NullMarked
package dev.paseo.service.log;

import org.jspecify.annotations.NullMarked;
