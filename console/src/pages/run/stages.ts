import type { Schemas } from "../../api/client";
import type { GraphNode } from "../../design/graph";

export type Stage = Schemas["StageView"];

/** A stage of a run as one word: its name and its variant. */
export const keyOf = (stage: Pick<Stage, "name" | "variant">) =>
  stage.variant ? `${stage.name} ${stage.variant}` : stage.name;

/** The newest attempt of each stage, in the file's order. */
export function newest(stages: Stage[]): Stage[] {
  const byKey = new Map<string, Stage>();
  stages.forEach((stage) => byKey.set(keyOf(stage), stage));
  return [...byKey.values()];
}

/** A stage of the graph: all its variants together. */
export interface StageNode extends GraphNode {
  variants: Stage[];
  status: string;
}

/** The more it needs to be looked at, the earlier. */
const TELLING = ["failed", "running", "ready", "warned", "cancelled", "waiting", "passed", "skipped"];

/** One node for each stage of the file; of several variants the most telling state counts. */
export function nodesOf(stages: Stage[]): StageNode[] {
  const byName = new Map<string, Stage[]>();
  newest(stages).forEach((stage) => byName.set(stage.name, [...(byName.get(stage.name) ?? []), stage]));
  return [...byName].map(([key, variants]) => {
    const first = variants[0];
    const status =
      [...variants].sort((a, b) => TELLING.indexOf(a.status) - TELLING.indexOf(b.status))[0]?.status ?? "waiting";
    return {
      key,
      variants,
      status,
      after: first?.after ?? [],
      afterAny: first?.afterAny ?? [],
      ifFailed: first?.ifFailed ?? [],
    };
  });
}

/** From the first variant's beginning to the last one's end; empty as long as none began. */
export function spanOf(variants: Stage[]): { began?: string; ended?: string; away: number } {
  const began = variants.flatMap((stage) => stage.startedAt ?? []).sort()[0];
  const over = variants.every((stage) => stage.endedAt);
  return {
    began,
    away: Math.max(0, ...variants.map((stage) => stage.away)),
    ended: over
      ? variants
          .flatMap((stage) => stage.endedAt ?? [])
          .sort()
          .at(-1)
      : undefined,
  };
}

/** The stage that a reader most likely wants: the one that failed, else the one that runs, else the last that began. */
export function stageToShow(stages: Stage[]): Stage | undefined {
  const shown = newest(stages);
  return (
    shown.find((stage) => stage.status === "failed") ??
    shown.find((stage) => stage.status === "running") ??
    shown
      .filter((stage) => stage.startedAt)
      .sort((a, b) => (a.startedAt ?? "").localeCompare(b.startedAt ?? ""))
      .at(-1) ??
    shown[0]
  );
}
