import { readFileSync } from "node:fs";
import { expect, it } from "vitest";
import { asked, DEPLOYMENT_STATUSES, narrows, pageOf, RUN_STATUSES, sinceOf, told, type Facet } from "./facets";

const ALL: Facet[] = ["component", "environment", "status", "branch", "since", "first"];

it.each([
  ["", {}, "all of them"],
  ["?component=daylight-api", { component: "daylight-api" }, "those of daylight-api"],
  [
    "?environment=production&status=undone&since=7d",
    { environment: "production", status: "undone", since: "7d" },
    "those undone, in production, in the last 7 days",
  ],
  ["?first=oldest", { first: "oldest" }, "all of them, the oldest first"],
  [
    "?component=daylight-api&first=oldest",
    { component: "daylight-api", first: "oldest" },
    "those of daylight-api, the oldest first",
  ],
  ["?first=best", {}, "all of them"],
  ["?status=&other=1&since=ever&blocked=true", {}, "all of them"],
])("reads %s from the address", (search, facets, words) => {
  expect(asked(new URLSearchParams(search), ALL)).toEqual(facets);
  expect(told(facets)).toBe(words);
});

it.each([
  [undefined, undefined, { before: undefined }],
  [undefined, 12, { before: 12 }],
  ["oldest", undefined, { after: 0 }],
  ["oldest", 12, { after: 12 }],
])("begins a page, %s first, at %s", (first, from, page) => expect(pageOf(first, from)).toEqual(page));

it("does not take an order for something that is asked for", () => {
  expect([{}, { first: "oldest" }, { since: "7d" }].map(narrows)).toEqual([false, false, true]);
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
