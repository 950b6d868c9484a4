import { readFileSync } from "node:fs";
import { expect, it } from "vitest";
import { nodesAt, type Schema } from "../completion";
import { alternativeOf, describe as about, kindOf } from "./kinds";

const schema = JSON.parse(
  readFileSync("../language/src/main/resources/dev/paseo/language/paseo.schema.json", "utf8"),
) as Schema;

const at = (...path: string[]) => {
  const key = path.pop() ?? "";
  const parent = nodesAt(schema, path).find((node) => node.properties?.[key]);
  return parent?.properties?.[key] ?? {};
};

it.each([
  [["stages", "a", "steps"], "list"],
  [["stages", "a", "wants"], "list"],
  [["stages", "a", "take"], "list"],
  [["stages", "a", "keep"], "pairs"],
  [["stages", "a", "may-fail"], "flag"],
  [["stages", "a", "timeout"], "text"],
  [["stages", "a", "wanted-if"], "text"],
  [["stages", "a", "reuse"], "group"],
  [["stages", "a", "reports"], "group"],
  [["newer-start"], "choice"],
  [["deployment", "checks"], "group"],
  [["deployment", "on-failure"], "choice"],
  [["deployment", "requires"], "pairs"],
] as const)("asks for %s by a %s", (path, kind) => {
  expect(kindOf(schema, at(...path)).kind).toBe(kind);
});

it("knows conditions, lists of texts and of mappings, and says what a key is", () => {
  expect(kindOf(schema, at("stages", "a", "wanted-if"))).toEqual({ kind: "text", condition: true });
  expect(kindOf(schema, at("stages", "a", "steps"))).toMatchObject({ texts: true, mapping: { required: ["command"] } });
  expect(kindOf(schema, at("stages", "a", "wants"))).toMatchObject({ texts: true, mapping: undefined });
  expect(about(schema, at("stages", "a", "timeout"))).toContain("12h");
});

it("finds the trigger that a mapping is", () => {
  const items = nodesAt(schema, ["starts"]).find((node) => node.items)?.items;
  expect(Object.keys(alternativeOf(schema, items, { clock: "0 2 * * *" })?.properties ?? {})).toEqual([
    "clock",
    "zone",
  ]);
  expect(alternativeOf(schema, items, { nothing: true })).toBeUndefined();
});
