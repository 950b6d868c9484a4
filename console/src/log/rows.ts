import type { Schemas } from "../api/client";

export type Step = Schemas["Step"];
export type Span = Schemas["SpanView"];

/** A part of a log's rows: the line of a step, or lines that stand together. */
export type Part =
  | { kind: "step"; step: Step; open: boolean; at: number; count: 1 }
  | { kind: "lines"; first: number; at: number; count: number };

/** What a row is: the line of a step, or the number of a log line. */
export type LogRow = { kind: "step"; step: Step; open: boolean } | { kind: "line"; number: number };

/** The newest try of each step, in order. */
function newestTries(steps: Step[]): Step[] {
  const byPosition = new Map<number, Step>();
  steps.forEach((step) => {
    const known = byPosition.get(step.position);
    if (!known || known.tried <= step.tried) byPosition.set(step.position, step);
  });
  return [...byPosition.values()].sort((a, b) => a.position - b.position);
}

/**
 * The rows of a log: each step's line first, then, where it is open, its output; the agent's own words before and
 * after.
 * It is made from the outline alone, so that a log of any length costs as many parts as it has steps.
 */
export function partsOf(steps: Step[], outline: Span[], closed: ReadonlySet<number>): Part[] {
  const parts: Part[] = [];
  const told = new Set<number>();
  let at = 0;
  const add = (count: number, part: (at: number) => Part) => {
    parts.push(part(at));
    at += count;
  };
  const head = (step: Step) => {
    told.add(step.position);
    add(1, (row) => ({ kind: "step", step, open: !closed.has(step.position), at: row, count: 1 }));
  };
  const tries = newestTries(steps);
  for (const span of outline) {
    if (span.step === 0 && told.size > 0) tries.filter((step) => !told.has(step.position)).forEach(head);
    tries.filter((step) => span.step > 0 && step.position <= span.step && !told.has(step.position)).forEach(head);
    const count = span.last - span.first + 1;
    if (span.step === 0 || !closed.has(span.step))
      add(count, (row) => ({ kind: "lines", first: span.first, at: row, count }));
  }
  tries.filter((step) => !told.has(step.position)).forEach(head);
  return parts;
}

export const countOf = (parts: Part[]) => {
  const last = parts.at(-1);
  return last ? last.at + last.count : 0;
};

/** The row at an index, by bisection. */
export function rowAt(parts: Part[], index: number): LogRow | undefined {
  let low = 0;
  let high = parts.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if ((parts[middle]?.at ?? Infinity) <= index) low = middle;
    else high = middle - 1;
  }
  const part = parts[low];
  if (!part || index >= part.at + part.count) return undefined;
  return part.kind === "step"
    ? { kind: "step", step: part.step, open: part.open }
    : { kind: "line", number: part.first + index - part.at };
}

/** Where a log line stands among the rows; undefined where it is folded away. */
export function indexOf(parts: Part[], number: number): number | undefined {
  const part = parts.find((each) => each.kind === "lines" && number >= each.first && number < each.first + each.count);
  return part?.kind === "lines" ? part.at + number - part.first : undefined;
}
