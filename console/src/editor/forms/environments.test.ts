import { readFileSync } from "node:fs";
import { expect, it } from "vitest";
import { nodesAt, type Schema } from "../completion";
import { alternativeOf, kindOf, takesPairs } from "./kinds";

const schema = JSON.parse(
  readFileSync("../language/src/main/resources/dev/paseo/language/environments.schema.json", "utf8"),
) as Schema;

const at = (...path: string[]) => {
  const key = path.pop() ?? "";
  return nodesAt(schema, path).find((node) => node.properties?.[key])?.properties?.[key] ?? {};
};
const ENV = ["environments", "test"];

it.each([
  [[...ENV, "zone"], "text"],
  [[...ENV, "uploads"], "flag"],
  [[...ENV, "newer-version"], "choice"],
  [[...ENV, "follows"], "group"],
  [[...ENV, "branches"], "list"],
  [[...ENV, "variables"], "pairs"],
  [[...ENV, "components"], "named"],
  [[...ENV, "components", "a", "hosts"], "named"],
  [[...ENV, "components", "a", "hosts", "h", "ssh"], "group"],
  [[...ENV, "to-enter"], "group"],
  [[...ENV, "to-enter", "approvals"], "list"],
  [[...ENV, "to-enter", "facts"], "list"],
  [[...ENV, "to-enter", "outside"], "named"],
])("asks for %s by a %s", (path, kind) => {
  expect(kindOf(schema, at(...path)).kind).toBe(kind);
});

it("knows a criterion that stands alone, and conditions by their names", () => {
  const approvals = at(...ENV, "to-enter", "approvals");
  expect(Object.keys(alternativeOf(schema, approvals, { from: "approvers" })?.properties ?? {})).toContain("count");
  expect(takesPairs(schema, at(...ENV, "to-enter", "facts"))).toBe(true);
  expect(takesPairs(schema, approvals)).toBe(false);
});
