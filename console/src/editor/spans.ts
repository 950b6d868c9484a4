import { isMap, isSeq, type Node, type Pair } from "yaml";

/** Where the entries of a YAML text stand in it, with what belongs to them. */

export const lineStart = (text: string, at: number) => text.lastIndexOf("\n", at - 1) + 1;

export const lineEnd = (text: string, at: number) => {
  const end = text.indexOf("\n", at);
  return end < 0 ? text.length : end + 1;
};

export const first = (item: unknown): number =>
  ((item as Pair).key as Node | undefined)?.range?.[0] ?? (item as Node).range?.[0] ?? 0;

const end = (item: unknown): number => {
  const pair = item as Pair;
  if ("key" in pair) return (pair.value as Node | null)?.range?.[1] ?? (pair.key as Node).range?.[1] ?? 0;
  return (item as Node).range?.[1] ?? 0;
};

/** From where an entry's own comment begins to its line's end; in flow style, the entry alone. */
export function spansOf(text: string, holder: Node): [number, number][] {
  const items = isMap(holder) || isSeq(holder) ? holder.items : [];
  if ((isMap(holder) || isSeq(holder)) && holder.flow) return items.map((item) => [first(item), end(item)]);
  return items.map((item) => {
    let start = lineStart(text, first(item));
    const indent =
      first(item) -
      start -
      (isSeq(holder) ? text.slice(start, first(item)).length - text.slice(start).search(/\S/) : 0);
    for (;;) {
      const above = lineStart(text, start - 1);
      if (start === 0 || !new RegExp(`^ {${indent}}#`).test(text.slice(above, start))) break;
      start = above;
    }
    const stop = end(item);
    return [start, stop > 0 && text[stop - 1] === "\n" ? stop : lineEnd(text, stop)];
  });
}
