/** The one map of states: each with its shape, its tone and its word. */
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

export interface State {
  shape: Shape;
  tone: Tone;
  word: string;
}

const state = (shape: Shape, tone: Tone, word: string = shape): State => ({ shape, tone, word });

/** Of runs and stages. */
const WORK: Record<string, State> = {
  waiting: state("waiting-stage", "rest2", "waiting"),
  ready: state("ready", "rest2", "waits for an agent"),
  running: state("running", "ink"),
  cancelling: state("running", "ink", "cancelling"),
  passed: state("passed", "good"),
  warned: state("warned", "warn"),
  failed: state("failed", "bad"),
  skipped: state("skipped", "rest2"),
  cancelled: state("cancelled", "rest2"),
  stopped: state("cancelled", "rest2", "stopped"),
};

const DEPLOYMENT: Record<string, State> = {
  waiting: state("waiting", "ink"),
  queued: state("queued", "ink"),
  deploying: state("deploying", "ink"),
  checking: state("checking", "ink"),
  live: state("live", "good"),
  replaced: state("replaced", "rest2"),
  undoing: state("undoing", "ink"),
  undone: state("undone", "bad"),
  removed: state("removed", "rest2"),
  stopped: state("stopped", "bad"),
  failed: state("failed", "bad"),
  rejected: state("rejected", "bad"),
  expired: state("expired", "rest2"),
  withdrawn: state("withdrawn", "rest2"),
  overtaken: state("overtaken", "rest2"),
};

const CRITERION: Record<string, State> = {
  met: state("met", "good"),
  "not yet": state("not-yet", "rest2", "not yet"),
  asked: state("asked", "ink"),
  "not met": state("not-met", "bad", "not met"),
};

const HOST: Record<string, State> = {
  ahead: state("waiting-stage", "rest2", "not begun"),
  installing: state("deploying", "ink", "installing"),
  installed: state("deploying", "ink", "installed"),
  checking: state("checking", "ink"),
  good: state("live", "good", "live"),
  failed: state("failed", "bad"),
  undoing: state("undoing", "ink"),
  undone: state("undone", "bad", "taken back"),
  left: state("stopped", "bad", "left changed"),
  away: state("skipped", "rest2", "in maintenance"),
  watched: state("checking", "ink", "watched"),
  clearing: state("undoing", "ink", "being cleared"),
  cleared: state("replaced", "rest2", "cleared"),
};

const UNKNOWN = state("waiting-stage", "rest2", "unknown");

export const workState = (name: string): State => WORK[name] ?? { ...UNKNOWN, word: name };
export const deploymentState = (name: string): State => DEPLOYMENT[name] ?? { ...UNKNOWN, word: name };
export const criterionState = (name: string): State => CRITERION[name] ?? { ...UNKNOWN, word: name };
export const hostState = (name: string): State => HOST[name] ?? { ...UNKNOWN, word: name };
