import type { Schemas } from "../../api/client";
import type { LogLine } from "./useLog";

export type Step = Schemas["Step"];
export type LogRow = { kind: "step"; step: Step; open: boolean; lines: number } | { kind: "line"; line: LogLine };

/** The rows of a log: each step's line first, then, where it is open, its output. The agent's own words belong to no step. */
export function rowsOf(steps: Step[], lines: LogLine[], closed: ReadonlySet<number>): LogRow[] {
  const byStep = new Map<number, LogLine[]>();
  lines.forEach((line) => {
    const known = byStep.get(line.step);
    if (known) known.push(line);
    else byStep.set(line.step, [line]);
  });
  const own = byStep.get(0) ?? [];
  const firstStepLine = lines.find((line) => line.step > 0)?.number ?? Infinity;
  const rows: LogRow[] = own.filter((line) => line.number < firstStepLine).map((line) => ({ kind: "line", line }));
  for (const step of steps) {
    const output = byStep.get(step.position) ?? [];
    const open = !closed.has(step.position);
    rows.push({ kind: "step", step, open, lines: output.length });
    if (open) rows.push(...output.map((line): LogRow => ({ kind: "line", line })));
  }
  rows.push(...own.filter((line) => line.number > firstStepLine).map((line): LogRow => ({ kind: "line", line })));
  return rows;
}
