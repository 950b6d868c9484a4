import { expect, it } from "vitest";
import { barOf, mostOf, PARTS, wordOf } from "./parts";

const parts = PARTS.map(({ part }, at) => ({ part, seconds: at * 3600, median: 0 }));
const environment = {
  environment: "test",
  live: 2,
  perWeek: 1,
  parts,
  waitedFor: [],
  failed: 0,
  wentBack: 0,
  weeks: [],
};

it("draws what one promotion spent in each part, in hours", () => {
  expect(barOf(environment)).toMatchObject({ environment: "test", committed: 0, building: 1.5, deploying: 5 });
  expect(barOf({ ...environment, live: 0 })).toMatchObject({ building: 0 });
});

it("says in which part most of the time went", () => {
  expect(mostOf(parts)).toEqual({ part: "deploying", percent: 18 });
  expect(mostOf(parts.map((each) => ({ ...each, seconds: 0 })))).toBeUndefined();
  expect(mostOf([])).toBeUndefined();
  expect(wordOf("people")).toBe("waiting for people");
});
