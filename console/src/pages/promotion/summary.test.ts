import { expect, it } from "vitest";
import type { Schemas } from "../../api/client";
import { actOf, followsOf, linesOf, promotionOf } from "./summary";

type Comparison = Schemas["ComparisonView"];
type State = Schemas["CriterionView"]["state"];

const same: Comparison = {
  live: "1.4.7",
  proposed: "1.4.8",
  commits: [],
  commitCount: 0,
  lost: [],
  artifacts: [],
  variables: [],
  secrets: [],
  evidence: [],
  recipe: [],
  files: [],
  pieces: [],
  parts: [],
  partCount: 0,
};
const commit = (author: string) => ({ id: "c0ffee1234", summary: "Round", author, at: "2026-11-03T08:00:00Z" });

it("says what does not differ, too", () => {
  expect(linesOf(same).map((line) => line.sentence)).toEqual([
    "no commit differs",
    "no evidence to compare",
    "variables and secrets are the same",
  ]);
});

it("says what would be lost first, and warns of it", () => {
  const [first, second] = linesOf({ ...same, lost: [commit("ada")], commits: [commit("ben")], commitCount: 1 });
  expect(first).toMatchObject({ sentence: expect.stringContaining("that 1.4.8 lacks") as string, warn: true });
  expect(second?.sentence).toBe("1 commit by ben");
});

it("names what is worse and what is set otherwise", () => {
  const lines = linesOf({
    ...same,
    evidence: [
      { name: "coverage", live: "81 %", proposed: "79 %", better: false },
      { name: "tests", live: "10", proposed: "12", better: true },
    ],
    variables: [{ name: "LOG_LEVEL", live: "warn" }],
    secrets: [{ name: "DATA_KEY" }],
    recipe: [{ what: "strategy", live: "rolling", proposed: "together" }],
  });
  expect(lines.map((line) => line.sentence)).toEqual([
    "no commit differs",
    "worse than what is live: coverage",
    "other: LOG_LEVEL, DATA_KEY",
    "it is deployed otherwise: 1 difference in the recipe and what it uses",
  ]);
  expect(lines[2]?.details).toEqual(["LOG_LEVEL: warn → not set", "the secret DATA_KEY"]);
});

const gate = (...states: State[]) => states.map((state, at) => ({ state, name: String(at), sentence: "" }));

it.each([
  [gate(), "Deploy to test now", "Nothing stands in between: it begins at once."],
  [gate("met", "met"), "Deploy to test now", "Nothing stands in between: it begins at once."],
  [gate("met", "asked"), "Ask for test", "People are asked before anything is done."],
  [gate("not-met", "asked"), "Ask for test", "People are asked before anything is done."],
  [gate("met", "not-yet"), "Request it for test", "It waits, and begins by itself once its gate is open."],
])("says what its button does: %#", (criteria, act, follows) => {
  expect(actOf(criteria, "test")).toBe(act);
  expect(followsOf(criteria, "test", [])).toBe(`${follows} It stops in test.`);
  expect(followsOf(criteria, "test", ["staging"])).toBe(`${follows} From test it goes on by itself to staging.`);
});

it.each([
  [null, undefined],
  ["a:1.0", undefined],
  ["a:1.0:test:more", undefined],
  ["a:1.0:test", { component: "a", version: "1.0", environment: "test" }],
])("reads what is promoted from the address: %s", (param, promotion) => {
  expect(promotionOf(param)).toEqual(promotion);
});
