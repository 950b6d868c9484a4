/** How people come in: passwords, sessions, tokens, a provider of identities; and how often they may ask. */
@NullMarked
package dev.paseo.service.signin;

import org.jspecify.annotations.NullMarked;
