import { expect, it } from "vitest";
import { between } from "./between";

const place = (component: string, version: string, environment = "production") => ({ component, environment, version });

it("tells what changed, came and went between two moments, and nothing else", () => {
  expect(
    between(
      [place("daylight-api", "1.4.6"), place("path-board", "0.9.4"), place("sun-model", "2.8.3")],
      [place("path-board", "0.9.4"), place("daylight-api", "1.4.8"), place("daylight-api", "1.4.8", "test")],
    ),
  ).toEqual([
    { component: "daylight-api", environment: "production", before: "1.4.6", after: "1.4.8" },
    { component: "sun-model", environment: "production", before: "2.8.3", after: undefined },
    { component: "daylight-api", environment: "test", before: undefined, after: "1.4.8" },
  ]);
});

it("has nothing to tell of a moment and itself", () => {
  expect(between([place("daylight-api", "1.4.6")], [place("daylight-api", "1.4.6")])).toEqual([]);
});
