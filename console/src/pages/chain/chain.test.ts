import { describe, expect, it } from "vitest";
import { neighbourhood, reachedBy, rowsOf, spanOf, stretchesOf, styleOf, sums, type Led } from "./chain";

const led = (more: Partial<Led>): Led => ({
  kind: "run",
  component: "daylight-api",
  where: "main",
  status: "passed",
  at: "2026-05-04T10:00:00Z",
  used: [],
  kept: 0,
  led: [],
  ...more,
});

const tree: Led[] = [
  led({
    component: "sun-model",
    number: 3,
    version: "2.8.3",
    endedAt: "2026-05-04T10:00:10Z",
    spent: { waiting: 1000, queueing: 0, working: 9000 },
    led: [
      led({
        number: 6,
        version: "1.4.5",
        status: "warned",
        at: "2026-05-04T10:00:10Z",
        endedAt: "2026-05-04T10:00:20Z",
        spent: { waiting: 0, queueing: 4000, working: 6000 },
      }),
      led({ kind: "nothing", component: "map-tiles", reason: "the run was on main", at: "2026-05-04T10:00:10Z" }),
    ],
  }),
];

const edges = [
  { upstream: "sun-model", downstream: "daylight-api", on: ["runs"] },
  { upstream: "sun-model", downstream: "map-tiles", on: ["runs"] },
  { upstream: "daylight-api", downstream: "daylight-check", on: ["staging"] },
  { upstream: "ridge", downstream: "cairn", on: ["runs"] },
];

describe("a change's walk", () => {
  it("is a list of rows, each below what led to it", () => {
    expect(rowsOf(tree).map((row) => [row.led.component, row.depth])).toEqual([
      ["sun-model", 0],
      ["daylight-api", 1],
      ["map-tiles", 1],
    ]);
  });

  it("lies on one time axis, in true proportion", () => {
    const rows = rowsOf(tree);
    const span = spanOf(rows, Date.parse("2026-05-04T12:00:00Z"));
    expect(span.to - span.from).toBe(20_000);
    expect(stretchesOf(rows[1]?.led as Led, span)).toEqual([
      { kind: "queueing", from: 0.5, width: 0.2 },
      { kind: "working", from: 0.7, width: 0.3 },
    ]);
    expect(sums(rows)).toEqual({ waiting: 1000, queueing: 4000, working: 15_000 });
  });

  it("goes on until now where something has not ended", () => {
    const span = spanOf(rowsOf([led({})]), Date.parse("2026-05-04T10:01:00Z"));
    expect(span.to - span.from).toBe(60_000);
  });

  it("shows on the ways what it reached and where it stopped", () => {
    const reached = reachedBy(tree);
    expect(edges.map((edge) => styleOf(edge, reached))).toEqual(["walked", "stopped", "ahead", "ahead"]);
    expect(reached.get("daylight-api")).toEqual({ status: "warned", words: "#6 warned, 1.4.5" });
  });
});

describe("the latest on a way", () => {
  const last = { sentence: "sun-model#3 ended passed", at: "2026-05-04T10:00:10Z" };
  it.each([
    [undefined, "ahead"],
    [{ ...last, reason: "the run ended failed" }, "stopped"],
    [{ ...last, run: 6, status: "running" as const }, "moving"],
    [{ ...last, run: 6, status: "failed" as const }, "walked"],
  ])("%o is drawn %s", (what, style) => {
    expect(
      styleOf({ upstream: "sun-model", downstream: "daylight-api", on: ["runs"], ...(what ? { last: what } : {}) }),
    ).toBe(style);
  });
});

it("knows what is connected with a component, up and down", () => {
  expect([...neighbourhood("daylight-api", edges)].sort()).toEqual(["daylight-api", "daylight-check", "sun-model"]);
});
