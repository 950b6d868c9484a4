import { readFileSync } from "node:fs";
import { expect, it } from "vitest";
import { asked, STATUSES, told } from "./facets";

it.each([
  ["", {}, "all of them"],
  ["?component=daylight-api", { component: "daylight-api" }, "all of them of daylight-api"],
  [
    "?environment=production&status=undone",
    { environment: "production", status: "undone" },
    "those that are undone into production",
  ],
  ["?status=&other=1", {}, "all of them"],
])("reads %s from the address", (search, facets, words) => {
  expect(asked(new URLSearchParams(search))).toEqual(facets);
  expect(told(facets)).toBe(words);
});

it("knows every state that the API has", () => {
  const api = JSON.parse(readFileSync("openapi.json", "utf8")) as {
    components: { schemas: { DeploymentSummary: { properties: { status: { enum: string[] } } } } };
  };
  expect(STATUSES.toSorted()).toEqual(api.components.schemas.DeploymentSummary.properties.status.enum.toSorted());
});
