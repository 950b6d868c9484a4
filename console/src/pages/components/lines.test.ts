import { expect, it } from "vitest";
import type { Schemas } from "../../api/client";
import { nameOf, sorted, type Sort } from "./lines";

const row = (component: string, team = "paths"): Schemas["RowView"] => ({
  component,
  summary: "",
  labels: { team },
  cells: [],
  stays: [],
});
const run = (component: string, status: Schemas["RunSummary"]["status"], createdAt: string) =>
  [component, { component, status, createdAt } as Schemas["RunSummary"]] as const;

const ROWS = [row("sun-model"), row("daylight-api", "light"), row("trail-atlas"), row("avalanche-notice")];
const RUNS = new Map([
  run("sun-model", "failed", "2026-05-04T08:00:00Z"),
  run("daylight-api", "passed", "2026-05-04T10:00:00Z"),
  run("trail-atlas", "warned", "2026-05-04T09:00:00Z"),
]);

it.each<[string, string, Sort, string[]]>([
  ["", "", "name", ["avalanche-notice", "daylight-api", "sun-model", "trail-atlas"]],
  ["", "", "newest", ["daylight-api", "trail-atlas", "sun-model", "avalanche-notice"]],
  ["", "", "trouble", ["sun-model", "trail-atlas", "avalanche-notice", "daylight-api"]],
  ["x", "failed", "name", []],
  ["sun", "failed", "name", ["sun-model"]],
  ["team=light", "", "name", ["daylight-api"]],
  ["", "", "unknown" as Sort, ["avalanche-notice", "daylight-api", "sun-model", "trail-atlas"]],
])("text %s, status %s, sorted %s", (text, status, sort, names) => {
  expect(sorted(ROWS, RUNS, { text, status, sort }).map((each) => each.row.component)).toEqual(names);
});

it.each([
  ["Ada <ada@park.example>", "Ada"],
  ["<ada@park.example>", "<ada@park.example>"],
  ["Ada", "Ada"],
  ["a > b", "a > b"],
])("says %s as %s", (author, name) => {
  expect(nameOf(author)).toBe(name);
});
