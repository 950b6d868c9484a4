import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useMay } from "../../api/may";
import { api, need, type Schemas } from "../../api/client";
import { Glyph } from "../../design/Glyph";
import { At } from "../../design/time";
import { DECIDE_BUTTONS, RULE } from "../../design/classes";

const PLAN_PARTS =
  "list-none p-0 text-[13px] leading-6 [&_li]:flex [&_li]:gap-2 [&_li]:items-center " +
  "[&_li[data-state=ahead]]:text-ink-2 [&_li[data-state=now]]:font-semibold";
const GO_ON = "mt-2 mb-3 p-3 border border-need rounded-[var(--r-2)]";

type View = Schemas["DeploymentView"];
type Part = Schemas["MovementView"];

const length = (seconds = 0) =>
  seconds >= 3600 && seconds % 3600 === 0
    ? `${seconds / 3600} h`
    : seconds >= 60 && seconds % 60 === 0
      ? `${seconds / 60} min`
      : `${seconds} s`;

/** A part of the plan, as what will happen. */
export function words(part: Part): string {
  const hosts = part.hosts.join(", ");
  switch (part.what) {
    case "once-before":
      return "once, before the first host";
    case "install":
      return `deploy to ${hosts}, then check ${part.hosts.length === 1 ? "it" : "them"}`;
    case "verify":
      return `check ${hosts}, which ${part.hosts.length === 1 ? "has" : "have"} it already`;
    case "pause":
      return `wait ${length(part.seconds)}`;
    case "traffic":
      return `${part.share} % of the traffic to it`;
    case "watch":
      return `keep checking for ${length(part.seconds)}`;
    case "facts":
      return `go on if ${part.name}`;
    case "question":
      return "ask a person whether it goes on";
    case "once-after":
      return "once, after the last host";
    case "whole":
      return "check the whole";
    case "live":
      return "live";
    case "test":
      return `test: ${part.name}`;
    case "settled":
      return "the walk goes on";
    case "clear":
      return `take what was before off ${hosts}`;
    default:
      return part.what;
  }
}

const SHAPE = { done: "passed", now: "running", ahead: "waiting-stage", broken: "failed", left: "skipped" } as const;

/** Everything that will happen, in its order: done, under way, ahead. */
export function Plan({ view }: { view: View }) {
  const quiet = view.plan.filter((part) => part.what !== "live" && part.what !== "settled");
  if (quiet.length < 2 && view.deployment.startedAt !== undefined) return null;
  return (
    <section aria-label="Plan">
      <h3 className={RULE}>{view.deployment.startedAt === undefined ? "When the gate opens" : "Plan"}</h3>
      <ol className={PLAN_PARTS}>
        {view.plan.map((part, at) => {
          const state = part.state as keyof typeof SHAPE;
          return (
            <li key={at} data-state={state}>
              <Glyph
                shape={SHAPE[state]}
                tone={state === "done" ? "good" : state === "now" ? "ink" : state === "broken" ? "bad" : "rest2"}
              />
              <span>
                {words(part)}
                {state === "broken" ? (
                  <span className="bad">
                    {part.what === "test" ? ": it failed, so the walk does not go on" : ": it ended here"}
                  </span>
                ) : state === "left" ? (
                  <span className="quiet">, not done</span>
                ) : null}
                {state === "now" && view.until ? (
                  <span className="quiet">
                    {" "}
                    until <At time={view.until} />
                  </span>
                ) : null}
              </span>
            </li>
          );
        })}
      </ol>
      {view.asksToGoOn && <GoOn view={view} />}
    </section>
  );
}

/** The plan asks a person here. */
function GoOn({ view }: { view: View }) {
  const client = useQueryClient();
  const [wrong, setWrong] = useState("");
  const { id, version, component, environment } = view.deployment;
  const may = useMay();
  const answer = async (yes: boolean) => {
    try {
      await need(api.POST("/api/v1/deployments/{id}/answer", { params: { path: { id } }, body: { yes } }));
      setWrong("");
    } catch (error) {
      setWrong(error instanceof Error ? error.message : String(error));
    }
    await client.invalidateQueries({ queryKey: ["deployment", id] });
  };
  return (
    <div className={GO_ON}>
      <p>
        <b>
          {version} has {view.share} % of the traffic.
        </b>{" "}
        Does it go on?{!may("PROMOTE", { component, environment }) && " Whoever may promote here says so."}
      </p>
      <div className={DECIDE_BUTTONS} hidden={!may("PROMOTE", { component, environment })}>
        <button type="button" className="btn yes big" onClick={() => void answer(true)}>
          Go on
        </button>
        <button type="button" className="btn danger big" onClick={() => void answer(false)}>
          Go back
        </button>
      </div>
      <p className="field-error" role="alert">
        {wrong}
      </p>
    </div>
  );
}
