import type { Schemas } from "../../api/client";
import type { GateState, Stop, StopState } from "../../design/Walk";
import { deploymentState } from "../../design/states";
import { At } from "../../design/time";

type View = Schemas["DeploymentView"];

type Status = View["deployment"]["status"];

/** The walk that leads to this deployment: what is behind it, its gate, and where it goes. */
export function heroStops(view: View): Stop[] {
  const { environment, status } = view.deployment;
  const at = view.route.indexOf(environment);
  const before = at < 0 ? view.route : view.route.slice(0, at);
  const stops: Stop[] = [
    {
      key: "built",
      name: "built",
      state: "built",
      path: "walked",
      below: view.run ? `run #${view.run}` : "",
      sentence: "built",
    },
  ];
  before.forEach((name, index) => {
    const stay = view.walk.find((each) => each.environment === name);
    stops.push({
      key: name,
      name,
      time: stay && <At time={stay.openedAt} />,
      state: stay ? "live" : "ahead",
      sentence: `${name}: ${stay ? "has been live" : "not yet"}`,
      path: index < before.length - 1 ? "walked" : pathIn(status),
      below: stay ? "has been live" : "not yet",
    });
  });
  if (before.length === 0 && stops[0]) stops[0].path = pathIn(status);
  stops.push({
    key: environment,
    name: environment,
    state: goal(status),
    path: "none",
    gate: view.gate.length > 1 || view.decisions.length > 0 ? gate(view) : undefined,
    below: below(view),
    sentence: `${environment}: ${status}`,
    time: view.deployment.liveAt && <At time={view.deployment.liveAt} />,
  });
  return stops;
}

const pathIn = (status: Status) => {
  const { phase } = deploymentState(status);
  return phase === "moving" || phase === "walked" ? phase : "ahead";
};

function goal(status: Status): StopState {
  switch (status) {
    case "live":
      return "live";
    case "replaced":
    case "removed":
      return "replaced";
    case "checking":
      return "checking";
    case "deploying":
    case "undoing":
      return "deploying";
    case "undone":
      return "undone";
    case "stopped":
    case "failed":
      return "stopped";
    default:
      return "ahead";
  }
}

function gate(view: View): GateState {
  const { status } = view.deployment;
  if (["moving", "walked", "broken"].includes(deploymentState(status).phase)) return "open";
  if (status === "rejected") return "rejected";
  return status === "waiting" ? (view.mayNot === undefined ? "person" : "other") : "later";
}

const below = ({ deployment: { status }, comparison, hosts }: View) =>
  status === "live"
    ? `live on ${hosts.length === 1 ? "its host" : `all ${hosts.length} hosts`}`
    : `${comparison.live ?? "nothing"} ${status === "replaced" ? "came before" : "is live there"}`;
