import type { ReactNode } from "react";

/** A sentence in which what stands between backquotes is code. */
export const coded = (words: string): ReactNode[] =>
  words.split("`").map((part, at) => (at % 2 ? <code key={at}>{part}</code> : part));
