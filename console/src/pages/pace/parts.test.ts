import { expect, it } from "vitest";
import { barOf, length, marks, mostOf, PARTS, percent, wordOf } from "./parts";

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

it("marks an axis where people count", () => {
  expect(marks(14)).toEqual([0, 5, 10, 15]);
  expect(marks(65)).toEqual([0, 15, 30, 45, 60, 75]);
  expect(marks(79)).toEqual([0, 30, 60, 90]);
  expect(marks(3600 * 20)).toEqual([0, 21600, 43200, 64800, 86400]);
  expect(marks(86400 * 12)).toEqual([0, 3, 6, 9, 12].map((days) => days * 86400));
  expect(marks(0)).toEqual([0, 1]);
});
