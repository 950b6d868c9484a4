import { useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { api, need, type Schemas } from "../../api/client";
import { Ask } from "../../design/Ask";
import { AskFor } from "../../design/AskFor";
import { Closing } from "../../design/Closing";
import { BringBack, Retire } from "../../design/Retire";
import { useMay } from "../../api/may";
import { Onto, Record } from "./Onto";
import { PLACE_ACTIONS } from "../../design/classes";

type View = Schemas["PlaceView"];

/** What a person can do here; each says what will happen before it does. */
export function Actions({ view }: { view: View }) {
  const client = useQueryClient();
  const go = useNavigate();
  const allowed = useMay();
  const may = (action: string) => allowed(action, { component: view.component, environment: view.environment });
  const path = { component: view.component, environment: view.environment };
  const params = { params: { path } };
  const fresh = () => client.invalidateQueries();
  const shown = (deployment: { id: number }) => go(`/deployments/${deployment.id}`);
  const here = `${view.component} in ${view.environment}`;
  return (
    <section className={`sheet ${PLACE_ACTIONS}`} aria-label="Actions">
      <h2>Actions</h2>
      <Onto view={view} />
      <Record view={view} />
      {may("ROLL_BACK") && (
        <Ask
          danger
          label={view.rollback ? `Roll back to ${view.rollback}` : "Roll back"}
          disabled={!view.rollback}
          title={`Roll back ${here}`}
          reason="Why"
          needed
          act={`Roll back to ${view.rollback}`}
          what={
            <p>
              {view.environment} goes from <b className="v">{view.version}</b> back to{" "}
              <b className="v">{view.rollback}</b>, the last version that was live here and is good. The place is held
              then: nothing goes here by itself until the hold is lifted.
            </p>
          }
          onAct={async (reason) =>
            shown(
              await need(
                api.POST("/api/v1/places/{component}/{environment}/rollback", { ...params, body: { reason } }),
              ),
            )
          }
        />
      )}
      {may("ROLL_BACK") && !view.rollback && (
        <p className="quiet small-text">Nothing to go back to: no other good version was live here.</p>
      )}
      {may("PROMOTE") && (
        <Ask
          label="Redeploy"
          disabled={!view.version}
          title={`Redeploy ${here}`}
          reason="Comment"
          act={`Redeploy ${view.version}`}
          what={
            <p>
              <b className="v">{view.version}</b> is deployed again with the variables and secrets as they are now,
              through the gate before of {view.environment}.
            </p>
          }
          onAct={async (comment) =>
            shown(
              await need(
                api.POST("/api/v1/places/{component}/{environment}/redeployment", { ...params, body: { comment } }),
              ),
            )
          }
        />
      )}
      {may("PROMOTE") && view.differing.length > 0 && (
        <Ask
          label={`Repair ${view.differing.join(", ")}`}
          title={`Repair ${here}`}
          reason=""
          act="Repair"
          what={
            <p>
              {view.differing.join(", ")} {view.differing.length === 1 ? "is" : "are"} brought to{" "}
              <b className="v">{view.version}</b> again, exactly as it was deployed.
            </p>
          }
          onAct={async () => {
            await need(api.POST("/api/v1/places/{component}/{environment}/repair", { ...params, body: {} }));
            await fresh();
          }}
        />
      )}
      {!may("PROMOTE") ? null : view.hold ? (
        <Ask
          label="Lift the hold"
          title={`Lift the hold of ${here}`}
          reason="Why"
          act="Lift it"
          what={<p>Whatever waits for it continues by itself.</p>}
          onAct={async (reason) => {
            await need(
              api.DELETE("/api/v1/places/{component}/{environment}/hold", { params: { path, query: { reason } } }),
            );
            await fresh();
          }}
        />
      ) : (
        <Ask
          label="Hold"
          title={`Hold ${here}`}
          reason="Why"
          needed
          act="Hold it"
          what={<p>Nothing goes here by itself until the hold is lifted. A person may still deploy, and is told.</p>}
          onAct={async (reason) => {
            await need(api.PUT("/api/v1/places/{component}/{environment}/hold", { ...params, body: { reason } }));
            await fresh();
          }}
        />
      )}
      <Closing environment={view.environment} closed={view.closed !== undefined} />
      {may("EDIT_ENVIRONMENT") &&
        (view.retired ? (
          <BringBack what="place" name={view.component} environment={view.environment} />
        ) : (
          <Retire what="place" name={view.component} environment={view.environment} />
        ))}
      {!view.retired && (
        <>
          {view.rollback && <AskFor {...path} act="roll-back" words={`roll back to ${view.rollback}`} />}
          {view.hold ? (
            <AskFor {...path} act="lift-hold" words="lift the hold" />
          ) : (
            <AskFor {...path} act="hold" words="hold it" />
          )}
        </>
      )}
    </section>
  );
}
