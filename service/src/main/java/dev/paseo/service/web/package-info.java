/** The frame of the web interface: live events, the console's files, the API's description. */
@NullMarked
package dev.paseo.service.web;

import org.jspecify.annotations.NullMarked;
