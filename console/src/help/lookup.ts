import { search, sectionsOf, type Section } from "./search";
import { pages, textOf } from "./texts";

let sections: Section[] | undefined;

/** The parts of the docs that have these words, the best first. */
export function lookUp(words: string): Section[] {
  sections ??= pages.flatMap((page) => sectionsOf(page, textOf(page) ?? ""));
  return search(sections, words);
}
