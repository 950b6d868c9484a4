import type { Schemas } from "../../api/client";
import type { GateState, PathKind, Stop, StopState } from "../../design/Walk";
import { deploymentState } from "../../design/states";
import { At } from "../../design/time";

type View = Schemas["VersionView"];
type Place = Schemas["StopView"];

const moves = (status = "") => deploymentState(status).phase === "moving";

/** A version's walk as stops: where it was built, then every environment of its route. */
export function stopsOf(view: View): Stop[] {
  const reached = view.walk.map((stop) => stop.openedAt !== undefined);
  const newest = (environment: string) => view.deployments.findLast((each) => each.environment === environment);
  const into = (at: number): PathKind => {
    const stop = view.walk[at];
    if (!stop) return "none";
    if (moves(newest(stop.environment)?.status)) return "moving";
    return reached[at] ? "walked" : "ahead";
  };
  const built: Stop = {
    key: "built",
    name: view.commit ? "built" : "arrived",
    time: <At time={view.sealedAt} />,
    state: "built",
    path: into(0),
    below: view.run ? `run #${view.run}` : "",
    sentence: view.commit ? "built" : "arrived",
  };
  return [built, ...view.walk.map((stop, at) => stopOf(view, stop, newest(stop.environment), into(at + 1)))];
}

function stopOf(view: View, stop: Place, newest: Schemas["DeploymentSummary"] | undefined, path: PathKind): Stop {
  const state = stateOf(view.number, stop, newest?.status);
  return {
    key: stop.environment,
    name: stop.environment,
    state,
    path,
    time: stop.openedAt ? <At time={stop.openedAt} /> : undefined,
    gate: stop.gated ? gateOf(stop, newest?.status) : undefined,
    below: words(view.number, stop, newest),
    sentence: `${stop.environment}: ${state}`,
  };
}

function stateOf(number: string, stop: Place, status: string | undefined): StopState {
  if (status === "deploying" || status === "undoing") return "deploying";
  if (status === "checking") return "checking";
  if (status === "stopped") return "stopped";
  if (status === "undone") return "undone";
  if (stop.live === number) return "live";
  return stop.openedAt ? "replaced" : "ahead";
}

function gateOf(stop: Place, status: string | undefined): GateState {
  if (stop.openedAt || moves(status)) return "open";
  if (status === "rejected") return "rejected";
  return status === "waiting" ? "other" : "later";
}

function words(number: string, stop: Place, newest: Schemas["DeploymentSummary"] | undefined): string {
  if (stop.stays) return `stays before it: ${stop.stays}. It goes on by itself when that is mended.`;
  if (stop.live === number) return stop.keeps ? `live. ${stop.keeps}` : "live";
  if (stop.openedAt) return `was live; now ${stop.live ?? "nothing"}`;
  return newest
    ? `${newest.status}${newest.reason ? `: ${newest.reason}` : ""}`
    : `not yet; ${stop.live ?? "nothing"} is live`;
}
