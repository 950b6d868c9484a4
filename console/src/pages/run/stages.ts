import type { Schemas } from "../../api/client";
import type { GraphNode } from "./graph";

export type Stage = Schemas["StageView"];

/** A stage of a run as one word: its name and its variant. */
export const keyOf = (stage: Pick<Stage, "name" | "variant">) => (stage.variant ? `${stage.name} ${stage.variant}` : stage.name);

/** The newest attempt of each stage, in the file's order. */
export function newest(stages: Stage[]): Stage[] {
  const byKey = new Map<string, Stage>();
  stages.forEach((stage) => byKey.set(keyOf(stage), stage));
  return [...byKey.values()];
}

export const attemptsOf = (stages: Stage[], stage: Stage) => stages.filter((each) => keyOf(each) === keyOf(stage));

export interface StageNode extends GraphNode {
  stage: Stage;
}

/** Stages with what they wait for, by key: who names a stage waits for each of its variants. */
export function nodesOf(stages: Stage[]): StageNode[] {
  const shown = newest(stages);
  const keys = (names: string[]) => shown.filter((stage) => names.includes(stage.name)).map(keyOf);
  return shown.map((stage) => ({ key: keyOf(stage), stage, after: keys(stage.after), afterAny: keys(stage.afterAny), ifFailed: keys(stage.ifFailed) }));
}

/** The stage that a reader most likely wants: the one that failed, else the one that runs, else the last that began. */
export function stageToShow(stages: Stage[]): Stage | undefined {
  const shown = newest(stages);
  return shown.find((stage) => stage.status === "failed") ?? shown.find((stage) => stage.status === "running")
    ?? shown.filter((stage) => stage.startedAt).sort((a, b) => (a.startedAt ?? "").localeCompare(b.startedAt ?? "")).at(-1) ?? shown[0];
}
