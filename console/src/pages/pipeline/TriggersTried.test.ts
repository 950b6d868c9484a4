import { expect, it } from "vitest";
import { sentence } from "./TriggersTried";

const view = { since: "", until: "", events: 61, all: true, now: 40, then: 39, unknown: 0, differing: [] };

it("says how many would start a run, and of how many it cannot", () => {
  expect(sentence(view)).toBe(
    "Of 61 that happened, 40 start a run by the main branch’s file, and 39 would by this one.",
  );
  expect(sentence({ ...view, all: false, unknown: 2 })).toBe(
    "Of 61 that happened (the newest), 40 start a run by the main branch’s file, and 39 would by this one. " +
      "Of 2 it cannot be told.",
  );
});
