import { expect, it } from "vitest";
import { allows } from "./may";

const who = {
  may: ["LOOK"],
  there: [
    { action: "PROMOTE", component: "daylight-api" },
    { action: "ROLL_BACK", environment: "test" },
    { action: "EMERGENCY", component: "daylight-api", environment: "test" },
  ],
};

it.each([
  ["LOOK", {}, true],
  ["LOOK", { component: "sun-model" }, true],
  ["PROMOTE", { component: "daylight-api", environment: "production" }, true],
  ["PROMOTE", { component: "sun-model", environment: "production" }, false],
  ["PROMOTE", {}, true],
  ["ROLL_BACK", { component: "sun-model", environment: "test" }, true],
  ["ROLL_BACK", { component: "sun-model", environment: "production" }, false],
  ["EMERGENCY", { component: "daylight-api", environment: "test" }, true],
  ["EMERGENCY", { component: "daylight-api", environment: "production" }, false],
  ["DECIDE", {}, false],
])("%s where %j: %s", (action, where, may) => expect(allows(who, action, where)).toBe(may));

it("offers nothing before it is known who it is", () => expect(allows(undefined, "LOOK")).toBe(false));
