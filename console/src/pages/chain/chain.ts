import type { Schemas } from "../../api/client";
import { workState } from "../../design/states";

export type Led = Schemas["LedView"];
type Edge = Schemas["EdgeView"];

/** Something of a change's walk with how deep it lies. */
export interface Row {
  led: Led;
  depth: number;
}

/** The tree as rows, each below what led to it. */
export const rowsOf = (tree: Led[], depth = 0): Row[] =>
  tree.flatMap((led) => [{ led, depth }, ...rowsOf(led.led, depth + 1)]);

/** A stretch of a row on the time axis, in shares of the whole. */
export interface Stretch {
  kind: "waiting" | "queueing" | "working";
  from: number;
  width: number;
}

/** The first and the last moment of a walk, in milliseconds; what goes on ends now. */
export function spanOf(rows: Row[], now: number): { from: number; to: number } {
  const moments = rows.flatMap(({ led }) => [
    new Date(led.at).getTime(),
    led.endedAt ? new Date(led.endedAt).getTime() : led.kind === "nothing" ? new Date(led.at).getTime() : now,
  ]);
  return { from: Math.min(...moments), to: Math.max(...moments) };
}

/**
 * Where a row's time went: first it waited, then it queued and worked. Queueing lies between pieces of work, but is
 * drawn before them, since only its sum is known.
 */
export function stretchesOf(led: Led, span: { from: number; to: number }): Stretch[] {
  if (!led.spent) return [];
  const whole = Math.max(1, span.to - span.from);
  let at = new Date(led.at).getTime() - span.from;
  return (["waiting", "queueing", "working"] as const).flatMap((kind) => {
    const length = led.spent?.[kind] ?? 0;
    const stretch = { kind, from: at / whole, width: length / whole };
    at += length;
    return length > 0 ? [stretch] : [];
  });
}

/** What a change spent on each, over all its runs and deployments. */
export function sums(rows: Row[]): Record<Stretch["kind"], number> {
  const sum = { waiting: 0, queueing: 0, working: 0 };
  rows.forEach(({ led }) => {
    if (led.spent) {
      sum.waiting += led.spent.waiting;
      sum.queueing += led.spent.queueing;
      sum.working += led.spent.working;
    }
  });
  return sum;
}

/** A component and everything up and down the chain from it. */
export function neighbourhood(component: string, edges: Edge[]): Set<string> {
  const reach = (next: (name: string) => string[]) => {
    const seen = new Set<string>();
    const ahead = [component];
    while (ahead.length > 0) {
      const here = ahead.pop() as string;
      if (!seen.has(here)) {
        seen.add(here);
        ahead.push(...next(here));
      }
    }
    return seen;
  };
  const up = reach((name) => edges.filter((edge) => edge.downstream === name).map((edge) => edge.upstream));
  const down = reach((name) => edges.filter((edge) => edge.upstream === name).map((edge) => edge.downstream));
  return new Set([...up, ...down]);
}

/** What a change made of each component that it reached: the newest run there, or that none was started. */
export type Reached = Map<string, { status: string; words: string } | "nothing">;

export function reachedBy(tree: Led[]): Reached {
  const reached: Reached = new Map();
  rowsOf(tree).forEach(({ led }) => {
    if (led.kind === "run")
      reached.set(led.component, { status: led.status, words: `#${led.number} ${led.status}, ${led.version}` });
    else if (led.kind === "nothing" && !reached.has(led.component)) reached.set(led.component, "nothing");
  });
  return reached;
}

const goesOn = (status = "") => ["ahead", "moving"].includes(workState(status).phase);

/**
 * How an edge is drawn: walked, where the followed change, or else what happened last upstream, started a run;
 * stopped, where it did not.
 */
export function styleOf(edge: Edge, followed?: Reached): "walked" | "moving" | "stopped" | "ahead" {
  if (followed) {
    const there = followed.has(edge.upstream) ? followed.get(edge.downstream) : undefined;
    return there === undefined ? "ahead" : there === "nothing" ? "stopped" : goesOn(there.status) ? "moving" : "walked";
  }
  if (!edge.last) return "ahead";
  if (edge.last.run === undefined) return "stopped";
  return goesOn(edge.last.status) ? "moving" : "walked";
}
