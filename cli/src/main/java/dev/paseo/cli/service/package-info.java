/** Which service is asked, as whom, and how. */
@NullMarked
package dev.paseo.cli.service;

import org.jspecify.annotations.NullMarked;
