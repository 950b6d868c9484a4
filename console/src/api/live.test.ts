import { expect, it } from "vitest";
import { componentOf } from "./live";

it.each([
  ["whereabouts", "daylight-api", "daylight-api"],
  ["whereabouts", "all", undefined],
  ["version", "daylight-api 1.4.7", "daylight-api"],
  ["run", "daylight-api#41", "daylight-api"],
  ["deployment", "41", undefined],
  ["environment", "production", undefined],
])("a change of %s %s is about %s", (kind, subject, component) => {
  expect(componentOf({ kind, subject })).toBe(component);
});
