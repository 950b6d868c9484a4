import { expect, test } from "vitest";
import { grouped, labelNames, matches } from "./labels";

const rows: { component: string; labels: Record<string, string> }[] = [
  { component: "hut-planner", labels: {} },
  { component: "path-board", labels: { team: "works" } },
  { component: "daylight-api", labels: { team: "wardens", tier: "public" } },
  { component: "sun-model", labels: { team: "wardens" } },
];

test("rows are grouped by a label's values, those without it last", () => {
  expect(grouped(rows, "team").map((group) => [group.value, group.rows.map((row) => row.component)])).toEqual([
    ["wardens", ["daylight-api", "sun-model"]],
    ["works", ["path-board"]],
    ["", ["hut-planner"]],
  ]);
  expect(grouped(rows, "")).toEqual([{ value: "", rows }]);
  expect(labelNames(rows)).toEqual(["team", "tier"]);
});

test.each([
  ["light", ["daylight-api"]],
  ["team=works", ["path-board"]],
  ["public", ["daylight-api"]],
  ["nothing like it", []],
])("%s is found in names and labels", (text, found) => {
  expect(rows.filter((row) => matches(row, text)).map((row) => row.component)).toEqual(found);
});
