package dev.paseo.language.draft;

import java.util.List;

/**
 * What the files of a repository do not tell.
 *
 * @param name     by which it is answered
 * @param words    the question, as a sentence
 * @param of       what may be answered; empty: any text of the form that the question says
 * @param standard what holds where nobody answers; may be empty
 * @param answer   what holds in this draft
 */
public record Question(String name, String words, List<String> of, String standard, String answer) {}
