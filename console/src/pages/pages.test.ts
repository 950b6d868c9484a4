import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { gateOf, pathTo } from "./whereabouts/MapRow";
import { stageToShow } from "./run/Run";
import { rowsOf, type Step } from "./run/rows";
import { stopsOf } from "./version/stops";
import { heroStops } from "./deployment/hero";

type Cell = Schemas["CellView"];
const cell = (more: Partial<Cell>): Cell => ({ environment: "production", hosts: 3, coming: [], behind: 0, ...more });
const coming = (status: string, forYou = false) => ({ deployment: 9, version: "1.4.2", status, requestedAt: "2026-11-23T09:00:00Z", forYou });

describe("a row of whereabouts", () => {
  it.each([
    ["level", "1.4.1", cell({ version: "1.4.1" }), "walked"],
    ["behind", "1.4.2", cell({ version: "1.4.1" }), "ahead"],
    ["on its way", "1.4.2", cell({ version: "1.4.1", coming: [coming("deploying")] }), "moving"],
    ["nothing built", undefined, cell({}), "ahead"],
    ["the last one", "1.4.2", undefined, "none"],
  ])("draws the path: %s", (_, version, next, path) => expect(pathTo(version, next)).toBe(path));

  it.each([
    ["waits for me", cell({ coming: [coming("waiting", true)] }), "person"],
    ["waits for somebody else", cell({ coming: [coming("waiting")] }), "other"],
    ["is being passed", cell({ coming: [coming("checking")] }), "open"],
    ["was passed", cell({ version: "1.4.1" }), "open"],
    ["has nobody at it", cell({ version: "1.4.0" }), "later"],
  ])("draws the gate: it %s", (_, at, gate) => expect(gateOf(at, "1.4.1")).toBe(gate));
});

describe("the log", () => {
  const step = (position: number): Step => ({ position, tried: 1, name: `./step-${position}.sh`, status: "passed", startedAt: "2026-11-23T09:00:00Z" });
  const line = (number: number, at: number) => ({ number, millis: 0, step: at, text: `line ${number}` });
  const lines = [line(1, 0), line(2, 1), line(3, 1), line(4, 2), line(5, 0)];
  const shown = (closed: number[]) =>
    rowsOf([step(1), step(2)], lines, new Set(closed)).map((row) => (row.kind === "step" ? `step ${row.step.position}` : row.line.number));

  it("has the agent's words around the steps and each step's lines under it", () => expect(shown([])).toEqual([1, "step 1", 2, 3, "step 2", 4, 5]));
  it("folds", () => expect(shown([1])).toEqual([1, "step 1", "step 2", 4, 5]));
});

describe("the stage that is shown first", () => {
  const stage = (name: string, status: string, startedAt?: string): Schemas["StageView"] => ({ name, attempt: 1, status, startedAt, steps: [] });
  it.each([
    ["the failed one", [stage("compile", "failed", "x"), stage("tests", "skipped")], "compile"],
    ["the running one", [stage("compile", "passed", "x"), stage("tests", "running", "x")], "tests"],
    ["the last that began", [stage("compile", "passed", "x"), stage("tests", "passed", "x")], "tests"],
    ["the first when none began", [stage("compile", "waiting"), stage("tests", "waiting")], "compile"],
  ])("is %s", (_, stages, name) => expect(stageToShow(stages)).toBe(name));
});

describe("the walk", () => {
  const version = {
    component: "tide-api", number: "1.4.1", branch: "main", trusted: true, digest: "d", sealedAt: "2026-11-23T09:00:00Z", artifacts: [], recipe: {}, causes: [],
    walk: [
      { environment: "test", openedAt: "2026-11-23T09:01:00Z", live: "1.4.2", gated: false },
      { environment: "staging", openedAt: "2026-11-23T09:02:00Z", live: "1.4.1", gated: false },
      { environment: "production", live: "1.4.0", gated: true },
    ],
    deployments: [{ id: 3, component: "tide-api", version: "1.4.1", environment: "production", kind: "promotion", status: "waiting", requestedAt: "x" }],
  } as unknown as Schemas["VersionView"];

  it("of a version tells where it was, is and waits", () => {
    expect(stopsOf(version).map((stop) => [stop.key, stop.state, stop.path, stop.gate])).toEqual([
      ["built", "built", "walked", undefined],
      ["test", "replaced", "walked", undefined],
      ["staging", "live", "ahead", undefined],
      ["production", "ahead", "none", "other"],
    ]);
  });

  it.each([
    ["waiting", undefined, "person", "ahead"],
    ["waiting", "you are the requester", "other", "ahead"],
    ["checking", "it is over", "open", "checking"],
    ["live", "it is over", "open", "live"],
    ["rejected", "it is over", "rejected", "ahead"],
    ["undone", "it is over", "open", "undone"],
  ])("of a deployment that is %s ends at its gate", (status, mayNot, gate, state) => {
    const view = {
      deployment: { environment: "production", status, kind: "promotion" }, route: ["test", "staging", "production"], walk: [],
      gate: [{}, {}], rulings: [], hosts: [{}], mayNot, comparison: {},
    } as unknown as Schemas["DeploymentView"];
    const last = heroStops(view).at(-1);
    expect([last?.gate, last?.state]).toEqual([gate, state]);
  });
});
