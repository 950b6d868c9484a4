import { expect, it } from "vitest";
import { stepsOf } from "./first";

const done = (agents: number, environments: number, components: number, accounts: number | undefined) =>
  stepsOf({ agents, environments, components, accounts })
    .filter((step) => step.done)
    .map((step) => step.name);

it.each<[[number, number, number, number], string[]]>([
  [[0, 0, 0, 1], []],
  [[1, 0, 0, 1], ["agent"]],
  [
    [0, 2, 1, 1],
    ["environment", "component"],
  ],
  [
    [1, 1, 1, 2],
    ["agent", "environment", "component", "colleague"],
  ],
])("ticks what is there: %j", (there, names) => {
  expect(done(...there)).toEqual(names);
});

it("speaks of accounts to whoever may add one alone", () => {
  expect(stepsOf({ agents: 0, environments: 0, components: 0, accounts: undefined })).toHaveLength(3);
});
