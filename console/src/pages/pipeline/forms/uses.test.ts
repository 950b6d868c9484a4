import { expect, it } from "vitest";
import { NOTHING_KNOWN, namesFor, readyStages } from "../../../editor/completion";
import { open, set, type Value } from "../../../editor/edits";
import type { Writing } from "../../../editor/forms/writing";
import { addUse, beginningOf, usesIn, type PlaceOf } from "./uses";

const USE = { piece: "times", of: "park-pieces", version: "2.*" };

function added(text: string, where: PlaceOf, use: Value = USE): string {
  let made = text;
  const writing = {
    opened: open(text),
    write: (path: (string | number)[], value: Value | undefined) => (made = set(text, path, value)),
  };
  addUse(writing as unknown as Writing, where, use);
  return made;
}

const FILE = `paseo: 1
# how it is built
stages:
  build: {steps: [./build.sh]} # in a minute
route:
  - test: automatic
`;

it.each([
  ["the whole file", "like:\n  piece: times\n  of: park-pieces\n  version: 2.*"],
  ["stages", "  like:\n    piece: times\n    of: park-pieces\n    version: 2.*"],
  ["checks", "deployment:"],
  ["route", "  - {like: {piece: times, of: park-pieces, version: 2.*}}"],
] as const)("adds a piece to %s, and leaves the rest as it is", (where, line) => {
  const made = added(FILE, where);
  expect(made).toContain(line);
  expect(made).toContain("  build: {steps: [./build.sh]} # in a minute\n");
  expect(usesIn(open(made))).toHaveLength(1);
  expect(usesIn(open(made))[0]?.where).toBe(where);
});

it("puts a second piece beside the first", () => {
  const twice = added(added(FILE, "stages"), "stages", { ...USE, piece: "lint" });
  expect(usesIn(open(twice)).map((use) => use.path)).toEqual([
    ["stages", "like", 0],
    ["stages", "like", 1],
  ]);
});

it("begins with an example of what has to be given, and of nothing else", () => {
  const input = (name: string, kind: string, standard?: string) => ({ name, kind, words: "", of: [], standard });
  expect(beginningOf([input("jar", "text"), input("limit", "duration", "10m"), input("often", "number")])).toEqual({
    given: { jar: "…", often: 1 },
  });
  expect(beginningOf([input("limit", "duration", "10m")])).toEqual({});
});

it("offers stages and names from what is there", () => {
  const known = {
    ...NOTHING_KNOWN,
    secrets: ["BELL_TOKEN"],
    artifacts: [{ from: "sun-model", artifact: "model", version: "3.1.0" }],
  };
  const ready = readyStages(known, ["build"]);
  expect(ready.find((each) => each.detail === "takes model of sun-model")?.apply).toContain(
    "{from: sun-model, artifact: model, into: lib}",
  );
  expect(ready.find((each) => each.detail === "sees the secret BELL_TOKEN")?.apply).toContain("secrets: [BELL_TOKEN]");
  expect(namesFor("secrets", known, [])).toEqual(["BELL_TOKEN"]);
  expect(namesFor("after", known, ["build"])).toEqual(["build"]);
  expect(namesFor("steps", known, ["build"])).toEqual([]);
});
