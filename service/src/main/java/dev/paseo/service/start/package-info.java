/** What starts components: the triggers of the main branches' files that are in force. */
@org.jspecify.annotations.NullMarked
package dev.paseo.service.start;
