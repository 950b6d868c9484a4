import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { api, need, type Schemas } from "../../api/client";
import { me } from "../../api/queries";
import { Ask } from "../../design/Ask";
import { BringBack, Retire } from "../../design/Retire";
import { useMay } from "../../api/may";
import { Onto, Record } from "./Onto";

type View = Schemas["PlaceView"];

/** What a person can do here; each says what will happen before it does. */
export function Actions({ view }: { view: View }) {
  const client = useQueryClient();
  const go = useNavigate();
  const signedIn = useQuery(me());
  const may = useMay();
  const path = { component: view.component, environment: view.environment };
  const params = { params: { path } };
  const fresh = () => client.invalidateQueries();
  const shown = (deployment: { id: number }) => go(`/deployments/${deployment.id}`);
  const here = `${view.component} in ${view.environment}`;
  return (
    <section className="sheet place-actions" aria-label="Actions">
      <h2>Actions</h2>
      <Onto view={view} />
      <Record view={view} />
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
            await need(api.POST("/api/v1/places/{component}/{environment}/rollback", { ...params, body: { reason } })),
          )
        }
      />
      {!view.rollback && (
        <p className="quiet small-text">Nothing to go back to: no other good version was live here.</p>
      )}
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
      {view.differing.length > 0 && (
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
      {view.hold ? (
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
      {view.closed ? (
        <Ask
          label={`Open ${view.environment}`}
          title={`Open ${view.environment}`}
          reason="Why"
          act="Open it"
          what={<p>Every component may be deployed to {view.environment} again; what waits goes on.</p>}
          onAct={async (reason) => {
            await need(
              api.DELETE("/api/v1/environments/{name}/closure", {
                params: { path: { name: view.environment }, query: { reason } },
              }),
            );
            await fresh();
          }}
        />
      ) : (
        <Ask
          label={`Close ${view.environment}`}
          title={`Close ${view.environment}`}
          reason="Why"
          needed
          act="Close it"
          what={
            <p>
              Nothing but rollbacks goes into {view.environment}, of any component, by anybody, until it is opened. What
              is being deployed goes on.
            </p>
          }
          onAct={async (reason) => {
            await need(
              api.PUT("/api/v1/environments/{name}/closure", {
                params: { path: { name: view.environment } },
                body: { reason },
              }),
            );
            await fresh();
          }}
        />
      )}
      {may("EDIT_ENVIRONMENT") &&
        (view.retired ? (
          <BringBack what="place" name={view.component} environment={view.environment} />
        ) : (
          <Retire what="place" name={view.component} environment={view.environment} />
        ))}
      <p className="quiet small-text">As {signedIn.data?.name}. Whoever may not is told so, and nothing happens.</p>
    </section>
  );
}
