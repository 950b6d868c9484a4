/** First drafts of pipeline files, from what is in a repository. */
@NullMarked
package dev.paseo.language.draft;

import org.jspecify.annotations.NullMarked;
