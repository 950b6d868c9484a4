import type { Schemas } from "../api/client";

/** The one map of states: each with its shape, its tone, its word, and how far it is. */
export type Tone = "good" | "warn" | "bad" | "ice" | "need" | "ink" | "rest" | "rest2";
export type Shape =
  | "waiting-stage"
  | "ready"
  | "running"
  | "passed"
  | "warned"
  | "failed"
  | "skipped"
  | "cancelled"
  | "waiting"
  | "queued"
  | "rejected"
  | "expired"
  | "withdrawn"
  | "overtaken"
  | "deploying"
  | "checking"
  | "live"
  | "replaced"
  | "undoing"
  | "undone"
  | "removed"
  | "stopped"
  | "hold"
  | "closed"
  | "met"
  | "asked"
  | "not-yet"
  | "not-met";

/** How far something is: nothing has begun, it goes on, it came where it should, it did not, or it never began. */
export type Phase = "ahead" | "moving" | "walked" | "broken" | "refused";

export interface State {
  shape: Shape;
  tone: Tone;
  phase: Phase;
  word: string;
}

const state = (shape: Shape, tone: Tone, phase: Phase, word: string = shape): State => ({ shape, tone, phase, word });

/** Of runs, stages, and their steps. */
const WORK: Record<Schemas["RunSummary"]["status"] | Schemas["StageView"]["status"] | "stopped", State> = {
  waiting: state("waiting-stage", "rest2", "ahead", "waiting"),
  ready: state("ready", "rest2", "ahead", "waits for an agent"),
  running: state("running", "ink", "moving"),
  cancelling: state("running", "ink", "moving", "cancelling"),
  passed: state("passed", "good", "walked"),
  warned: state("warned", "warn", "walked"),
  failed: state("failed", "bad", "broken"),
  skipped: state("skipped", "rest2", "refused"),
  cancelled: state("cancelled", "rest2", "refused"),
  stopped: state("cancelled", "rest2", "refused", "stopped"),
};

const DEPLOYMENT: Record<Schemas["DeploymentSummary"]["status"], State> = {
  waiting: state("waiting", "ink", "ahead"),
  queued: state("queued", "ink", "ahead"),
  deploying: state("deploying", "ink", "moving"),
  checking: state("checking", "ink", "moving"),
  live: state("live", "good", "walked"),
  replaced: state("replaced", "rest2", "walked"),
  undoing: state("undoing", "ink", "moving"),
  undone: state("undone", "bad", "broken"),
  removed: state("removed", "rest2", "walked"),
  stopped: state("stopped", "bad", "broken"),
  failed: state("failed", "bad", "broken"),
  rejected: state("rejected", "bad", "refused"),
  expired: state("expired", "rest2", "refused"),
  withdrawn: state("withdrawn", "rest2", "refused"),
  overtaken: state("overtaken", "rest2", "refused"),
};

const CRITERION: Record<Schemas["CriterionView"]["state"], State> = {
  met: state("met", "good", "walked"),
  "not-yet": state("not-yet", "rest2", "ahead", "not yet"),
  asked: state("asked", "ink", "ahead"),
  "not-met": state("not-met", "bad", "refused", "not met"),
};

const HOST: Record<Schemas["HostView"]["phase"], State> = {
  ahead: state("waiting-stage", "rest2", "ahead", "not begun"),
  installing: state("deploying", "ink", "moving", "installing"),
  installed: state("deploying", "ink", "moving", "installed"),
  checking: state("checking", "ink", "moving"),
  good: state("live", "good", "walked", "live"),
  failed: state("failed", "bad", "broken"),
  undoing: state("undoing", "ink", "moving"),
  undone: state("undone", "bad", "broken"),
  left: state("stopped", "bad", "broken", "left changed"),
  away: state("skipped", "rest2", "refused", "in maintenance"),
  watched: state("checking", "ink", "moving", "watched"),
  clearing: state("undoing", "ink", "moving", "being cleared"),
  cleared: state("replaced", "rest2", "walked", "cleared"),
};

const of =
  (states: Record<string, State>) =>
  (name: string): State =>
    states[name] ?? state("waiting-stage", "rest2", "ahead", name);

export const workState = of(WORK);
export const deploymentState = of(DEPLOYMENT);
export const criterionState = of(CRITERION);
export const hostState = of(HOST);
