/** Stores elsewhere that are watched for versions. */
@NullMarked
package dev.paseo.service.store;

import org.jspecify.annotations.NullMarked;
