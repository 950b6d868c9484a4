import { expect, it } from "vitest";
import { barOf, length, mostOf, PARTS, percent, wordOf } from "./parts";

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

it("says lengths with a digit behind the point only where they are short", () => {
  expect([undefined, 0.44, 4, 9.96, 41.2, 95].map(length)).toEqual(["–", "0.4 s", "4 s", "10 s", "41 s", "1 min 35 s"]);
  expect(percent(33.4)).toBe("33 %");
});
