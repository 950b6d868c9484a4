/** First drafts of pipeline files, from what is in a repository and what is asked. */
@NullMarked
package dev.paseo.service.draft;

import org.jspecify.annotations.NullMarked;
