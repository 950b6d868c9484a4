import { readFileSync } from "node:fs";
import { expect, it } from "vitest";
import { asked, DEPLOYMENT_STATUSES, RUN_STATUSES, sinceOf, told, type Facet } from "./facets";

const ALL: Facet[] = ["component", "environment", "status", "branch", "since"];

it.each([
  ["", {}, "all of them"],
  ["?component=daylight-api", { component: "daylight-api" }, "those of daylight-api"],
  [
    "?environment=production&status=undone&since=7d",
    { environment: "production", status: "undone", since: "7d" },
    "those undone, in production, in the last 7 days",
  ],
  ["?status=&other=1&since=ever&blocked=true", {}, "all of them"],
])("reads %s from the address", (search, facets, words) => {
  expect(asked(new URLSearchParams(search), ALL)).toEqual(facets);
  expect(told(facets)).toBe(words);
});

it.each([
  ["24h", "2026-05-03T08:00:00.000Z"],
  ["7d", "2026-04-27T08:00:00.000Z"],
  ["ever", undefined],
  [undefined, undefined],
])("goes back %s to a whole minute", (word, moment) => {
  expect(sinceOf(word, Date.parse("2026-05-04T08:00:34.500Z"))).toBe(moment);
});

it.each([
  ["DeploymentSummary", DEPLOYMENT_STATUSES],
  ["RunSummary", RUN_STATUSES],
])("knows every state that the API has of a %s", (name, known) => {
  const api = JSON.parse(readFileSync("openapi.json", "utf8")) as {
    components: { schemas: Record<string, { properties: { status: { enum: string[] } } }> };
  };
  expect(known.toSorted()).toEqual(api.components.schemas[name]?.properties.status.enum.toSorted());
});
