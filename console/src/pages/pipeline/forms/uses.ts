import type { Schemas } from "../../../api/client";
import { valueAt, type Opened, type Path, type Value } from "../../../editor/edits";
import type { Writing } from "../../../editor/forms/writing";

/** Where a piece may stand, in words. */
export const PLACES = ["the whole file", "stages", "deployment", "checks", "route"] as const;
export type PlaceOf = (typeof PLACES)[number];

const PATHS: Record<PlaceOf, Path> = {
  "the whole file": [],
  stages: ["stages"],
  deployment: ["deployment"],
  checks: ["deployment", "checks"],
  route: ["route"],
};

/** Each use of a piece in a text, and where it stands. */
export function usesIn(opened: Opened): { path: Path; where: PlaceOf }[] {
  return PLACES.flatMap((where) => {
    const place = valueAt(opened, PATHS[where]);
    const holders: Path[] = Array.isArray(place) ? place.map((_, at) => [...PATHS[where], at]) : [PATHS[where]];
    return holders.flatMap((holder) => {
      const like = valueAt(opened, [...holder, "like"]);
      if (like === undefined) return [];
      const path = [...holder, "like"];
      return Array.isArray(like) ? like.map((_, at) => ({ path: [...path, at], where })) : [{ path, where }];
    });
  });
}

/** Adds a use where others may stand already. */
export function addUse(writing: Writing, where: PlaceOf, use: Value) {
  const holder = PATHS[where];
  const place = holder.length === 0 ? undefined : valueAt(writing.opened, holder);
  if (Array.isArray(place)) return writing.write([...holder, place.length], { like: use });
  const like = valueAt(writing.opened, [...holder, "like"]) as Value | undefined;
  const path = [...holder, "like"];
  if (Array.isArray(like)) writing.write([...path, like.length], use);
  else writing.write(path, like === undefined ? use : [like, use]);
}

const EXAMPLES: Record<string, Value> = { number: 1, flag: true, duration: "10m", list: ["…"] };

/** What has to be given, with an example each. */
export function beginningOf(inputs: Schemas["Given"][]): { given?: Value } {
  const needed = inputs.filter((input) => input.standard === undefined);
  if (needed.length === 0) return {};
  return {
    given: Object.fromEntries(needed.map((input) => [input.name, EXAMPLES[input.kind] ?? input.of[0] ?? "…"])),
  };
}
