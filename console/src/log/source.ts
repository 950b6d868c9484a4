import { api, need, type Schemas } from "../api/client";
import type { Step } from "./rows";

export interface PartQuery {
  from: number;
  limit: number;
  waitMillis?: number;
  newest?: boolean;
}

/** Where a log comes from: a stage of a run, or a deployment's task on a host. */
export interface LogSource {
  /** One log, one key. */
  key: string;
  title: string;
  /** The name under which all of it is taken away, and where from. */
  file: string;
  whole: string;
  steps: Step[];
  /** Whether somebody works on it already. */
  begun: boolean;
  /** What is said where there is no line yet. */
  empty: string;
  part: (query: PartQuery, signal?: AbortSignal) => Promise<Schemas["LogView"]>;
  search: (text: string) => Promise<Schemas["FoundView"]>;
}

const plain = (text: string) => text.replaceAll(/[^a-z0-9]+/gi, "-");

type Stage = Schemas["StageView"];

function stillEmpty(stage: Stage): string {
  if (stage.waitsFor) return `It ${stage.waitsFor}.`;
  if (stage.status === "waiting") return "Waits for the stages before it.";
  return stage.reason ?? (stage.endedAt ? "No output" : "No output yet");
}

export function ofStage(component: string, number: number, stage: Stage): LogSource {
  const title = stage.variant ? `${stage.name} ${stage.variant}` : stage.name;
  const path = { component, number, stage: stage.name };
  const which = { variant: stage.variant, attempt: stage.attempt };
  const query = new URLSearchParams({ variant: stage.variant, attempt: String(stage.attempt) });
  return {
    key: `${component} ${number} ${title} ${stage.attempt}`,
    title,
    steps: stage.steps,
    begun: stage.work !== undefined,
    empty: stillEmpty(stage),
    file: `${component}-${number}-${plain(title)}.log`,
    whole: `/api/v1/runs/${component}/${number}/stages/${stage.name}/log.txt?${query.toString()}`,
    part: (wanted, signal) =>
      need(
        api.GET("/api/v1/runs/{component}/{number}/stages/{stage}/log", {
          params: { path, query: { ...which, ...wanted } },
          signal,
        }),
      ),
    search: (text) =>
      need(
        api.GET("/api/v1/runs/{component}/{number}/stages/{stage}/log/search", {
          params: { path, query: { ...which, text } },
        }),
      ),
  };
}

export function ofTask(id: number, task: Schemas["HostTaskView"], title: string): LogSource {
  const path = { id, work: task.work };
  return {
    key: `deployment ${id} ${task.work}`,
    title,
    steps: task.steps,
    begun: task.takenAt !== undefined,
    empty: task.takenAt ? (task.endedAt ? "No output" : "No output yet") : "Waits for its agent.",
    file: `deployment-${id}-${plain(title)}.log`,
    whole: `/api/v1/deployments/${id}/tasks/${task.work}/log.txt`,
    part: (wanted, signal) =>
      need(api.GET("/api/v1/deployments/{id}/tasks/{work}/log", { params: { path, query: wanted }, signal })),
    search: (text) =>
      need(api.GET("/api/v1/deployments/{id}/tasks/{work}/log/search", { params: { path, query: { text } } })),
  };
}
