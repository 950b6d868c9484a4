import { useQuery } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { api, need, type Schemas } from "../../api/client";
import { Ask } from "../../design/Ask";
import { Glyph } from "../../design/Glyph";
import { deploymentState } from "../../design/states";
import { words } from "../deployment/Plan";

type View = Schemas["VersionView"];

/** Where a version of this walk can be requested into, each with what is live there now. */
export function Promote({ view }: { view: View }) {
  const go = useNavigate();
  const open = (environment: string) =>
    view.deployments.findLast(
      (each) =>
        each.environment === environment &&
        each.status !== "undoing" &&
        ["ahead", "moving"].includes(deploymentState(each.status).phase),
    );
  const places = view.walk.filter((stop) => stop.live !== view.number && !open(stop.environment));
  if (view.blocked || view.walk.length === 0) return null;
  return (
    <section className="promote" aria-label="Request it">
      {places.map((stop) => (
        <Ask
          key={stop.environment}
          label={stop.gated ? `Ask for ${stop.environment}` : `Deploy to ${stop.environment}`}
          title={`${view.component} ${view.number} into ${stop.environment}`}
          reason="Comment"
          act={stop.gated ? `Ask for ${stop.environment}` : `Deploy to ${stop.environment}`}
          what={<Planned view={view} stop={stop} />}
          onAct={async (comment) => {
            const asked = await need(
              api.POST("/api/v1/deployments", {
                body: {
                  component: view.component,
                  version: view.number,
                  environment: stop.environment,
                  comment: comment || undefined,
                },
              }),
            );
            go(`/deployments/${asked.id}`);
          }}
        />
      ))}
      {view.walk
        .map((stop) => open(stop.environment))
        .filter((each) => each !== undefined)
        .map((each) => (
          <button
            key={each.id}
            type="button"
            className="btn quiet-btn"
            onClick={() => void go(`/deployments/${each.id}`)}
          >
            On its way into {each.environment}: {each.status}
          </button>
        ))}
    </section>
  );
}

/** What would happen, in its order; read when the dialog opens. */
function Planned({ view, stop }: { view: View; stop: Schemas["StopView"] }) {
  const path = { component: view.component, environment: stop.environment };
  const plan = useQuery({
    queryKey: ["plan", view.component, stop.environment, view.number],
    staleTime: 0,
    queryFn: () =>
      need(
        api.GET("/api/v1/places/{component}/{environment}/plan", { params: { path, query: { version: view.number } } }),
      ),
  });
  return (
    <>
      <p>
        {stop.live ? (
          <>
            <b className="v">{stop.live}</b> is live in {stop.environment} now, and is replaced.
          </>
        ) : (
          <>Nothing is live in {stop.environment} now.</>
        )}{" "}
        {stop.gated
          ? "People are asked at its gate before anything is done."
          : "It begins as soon as its gate is open."}
      </p>
      {plan.isPending && <p className="quiet">Reading the plan…</p>}
      {plan.isError && (
        <p className="bad" role="alert">
          {plan.error.message}
        </p>
      )}
      {plan.data?.cautions.map((caution) => (
        <p key={caution} className="warn" role="alert">
          <Glyph shape="warned" tone="warn" /> {caution}.
        </p>
      ))}
      {plan.data?.doubt && (
        <p className="bad" role="alert">
          It cannot be deployed there: {plan.data.doubt}
        </p>
      )}
      {plan.data && !plan.data.doubt && (
        <ol className="planned">
          {plan.data.plan
            .filter((part) => part.what !== "settled")
            .map((part, at) => (
              <li key={at}>{words(part)}</li>
            ))}
        </ol>
      )}
    </>
  );
}
