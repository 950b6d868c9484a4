import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { gateOf, pathTo } from "./whereabouts/MapRow";
import { layout } from "../design/graph";
import { countOf, indexOf, partsOf, rowAt, type Step } from "../log/rows";
import { nodesOf, stageToShow } from "./run/stages";
import { placeOf, stageNames } from "../editor/completion";
import { stopsOf } from "./version/stops";
import { heroStops } from "./deployment/hero";

type Cell = Schemas["CellView"];
const cell = (more: Partial<Cell>): Cell => ({
  environment: "production",
  hosts: 3,
  retired: false,
  coming: [],
  behind: 0,
  ...more,
});
const coming = (status: Schemas["ComingView"]["status"], forYou = false) => ({
  deployment: 9,
  version: "1.4.2",
  status,
  requestedAt: "2026-11-23T09:00:00Z",
  forYou,
});

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
  const step = (position: number): Step => ({
    position,
    tried: 1,
    name: `./step-${position}.sh`,
    status: "passed",
    startedAt: "2026-11-23T09:00:00Z",
  });
  const outline = [
    { step: 0, first: 1, last: 1 },
    { step: 1, first: 2, last: 3 },
    { step: 2, first: 4, last: 4 },
    { step: 0, first: 5, last: 5 },
  ];
  const shown = (closed: number[], spans = outline) => {
    const parts = partsOf([step(1), step(2)], spans, new Set(closed));
    return Array.from({ length: countOf(parts) }, (_, at) => {
      const row = rowAt(parts, at);
      return row?.kind === "step" ? `step ${row.step.position}` : row?.number;
    });
  };

  it("has the agent's words around the steps and each step's lines under it", () =>
    expect(shown([])).toEqual([1, "step 1", 2, 3, "step 2", 4, 5]));
  it("folds", () => expect(shown([1])).toEqual([1, "step 1", "step 2", 4, 5]));
  it("shows a step that has said nothing yet", () =>
    expect(shown([], outline.slice(0, 2))).toEqual([1, "step 1", 2, 3, "step 2"]));
  it("finds a line among millions at once", () => {
    const parts = partsOf([step(1)], [{ step: 1, first: 1, last: 5_000_000 }], new Set());
    expect(rowAt(parts, 4_000_000)).toEqual({ kind: "line", number: 4_000_000 });
    expect(indexOf(parts, 4_000_000)).toBe(4_000_000);
    expect(indexOf(partsOf([step(1)], outline, new Set([1])), 2)).toBeUndefined();
  });
});

const stage = (
  name: string,
  status: Schemas["StageView"]["status"],
  more: Partial<Schemas["StageView"]> = {},
): Schemas["StageView"] => ({
  name,
  variant: "",
  attempt: 1,
  status,
  after: [],
  afterAny: [],
  ifFailed: [],
  critical: false,
  steps: [],
  takes: [],
  away: 0,
  ...more,
});

describe("the graph", () => {
  const stages = [
    stage("compile", "passed"),
    stage("tests", "failed", { variant: "UTC", after: ["compile"] }),
    stage("tests", "passed", { variant: "Auckland", after: ["compile"] }),
    stage("tests", "passed", { variant: "UTC", attempt: 2, after: ["compile"] }),
    stage("ring", "skipped", { ifFailed: ["tests"] }),
  ];

  it("shows variants as one, by their newest attempts and the state that is most telling", () => {
    const nodes = nodesOf(stages);
    expect(nodes.map((node) => `${node.key} ${node.status}`)).toEqual([
      "compile passed",
      "tests passed",
      "ring skipped",
    ]);
    expect(nodes[1]?.variants.map((variant) => `${variant.variant} ${variant.attempt}`)).toEqual([
      "UTC 2",
      "Auckland 1",
    ]);
    expect(nodesOf(stages.slice(0, 3))[1]?.status).toBe("failed");
  });

  it("places each stage right of what it waits for, none upon another, and what waits for nothing at the left", () => {
    const { nodes, edges } = layout(
      nodesOf([...stages, stage("lint", "passed"), stage("end", "waiting", { after: ["ring", "lint", "compile"] })]),
    );
    const at = new Map(nodes.map((placed) => [placed.node.key, placed]));
    edges.forEach((edge) => expect(at.get(edge.from)?.x).toBeLessThan(at.get(edge.to)?.x ?? 0));
    expect(new Set(nodes.map((placed) => `${placed.x} ${placed.y}`)).size).toBe(nodes.length);
    expect(edges).toHaveLength(5);
    expect(at.get("lint")?.x).toBe(at.get("compile")?.x);
  });
});

describe("the stage that is shown first", () => {
  const begun = (name: string, status: Schemas["StageView"]["status"], startedAt?: string) =>
    stage(name, status, { startedAt });
  it.each([
    ["the failed one", [begun("compile", "failed", "x"), begun("tests", "skipped")], "compile"],
    ["the running one", [begun("compile", "passed", "x"), begun("tests", "running", "x")], "tests"],
    ["the last that began", [begun("compile", "passed", "x"), begun("tests", "passed", "x")], "tests"],
    ["the first when none began", [begun("compile", "waiting"), begun("tests", "waiting")], "compile"],
  ])("is %s", (_, stages, name) => expect(stageToShow(stages)?.name).toBe(name));
});

describe("the walk", () => {
  const version = {
    component: "daylight-api",
    number: "1.4.1",
    branch: "main",
    trusted: true,
    digest: "d",
    sealedAt: "2026-11-23T09:00:00Z",
    artifacts: [],
    recipe: {},
    causes: [],
    walk: [
      { environment: "test", openedAt: "2026-11-23T09:01:00Z", live: "1.4.2", gated: false },
      { environment: "staging", openedAt: "2026-11-23T09:02:00Z", live: "1.4.1", gated: false },
      { environment: "production", live: "1.4.0", gated: true },
    ],
    deployments: [
      {
        id: 3,
        component: "daylight-api",
        version: "1.4.1",
        environment: "production",
        kind: "promotion",
        status: "waiting",
        requestedAt: "x",
      },
    ],
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
      deployment: { environment: "production", status, kind: "promotion" },
      route: ["test", "staging", "production"],
      walk: [],
      gate: [{}, {}],
      decisions: [],
      hosts: [{}],
      mayNot,
      comparison: {},
    } as unknown as Schemas["DeploymentView"];
    const last = heroStops(view).at(-1);
    expect([last?.gate, last?.state]).toEqual([gate, state]);
  });
});

describe("completion", () => {
  const text = `paseo: 1
component: daylight-api
starts:
  - push: [main]
    pa
stages:
  compile:
    steps: [./build.sh]
    ke
    take:
      - from: sun-model
        in
  un`.split("\n");
  it.each([
    ["in a trigger", 4, ["starts", "[]"], ["push"]],
    ["in a stage", 8, ["stages", "compile"], ["steps"]],
    ["in what is taken", 11, ["stages", "compile", "take", "[]"], ["from"]],
    ["among the stages", 12, ["stages"], ["compile"]],
  ])("knows its place %s", (_, line, path, beside) => expect(placeOf(text, line)).toEqual({ path, beside }));
  it("knows the stages that are there", () => expect(stageNames(text)).toEqual(["compile"]));
});
