import { expect, test } from "vitest";
import { grouped, labelNames, matches } from "./labels";

const rows: { component: string; labels: Record<string, string> }[] = [
  { component: "berth-planner", labels: {} },
  { component: "quay-board", labels: { team: "pilots" } },
  { component: "tide-api", labels: { team: "harbour-office", tier: "public" } },
  { component: "tide-model", labels: { team: "harbour-office" } },
];

test("rows are grouped by a label's values, those without it last", () => {
  expect(grouped(rows, "team").map((group) => [group.value, group.rows.map((row) => row.component)])).toEqual([
    ["harbour-office", ["tide-api", "tide-model"]],
    ["pilots", ["quay-board"]],
    ["", ["berth-planner"]],
  ]);
  expect(grouped(rows, "")).toEqual([{ value: "", rows }]);
  expect(labelNames(rows)).toEqual(["team", "tier"]);
});

test.each([
  ["tide", ["tide-api", "tide-model"]],
  ["team=pilots", ["quay-board"]],
  ["public", ["tide-api"]],
  ["nothing like it", []],
])("%s is found in names and labels", (text, found) => {
  expect(rows.filter((row) => matches(row, text)).map((row) => row.component)).toEqual(found);
});
