import { useQueryClient } from "@tanstack/react-query";
import { useMay } from "../../api/may";
import { api, need, type Schemas } from "../../api/client";
import { Ask } from "../../design/Ask";
import { deploymentState } from "../../design/states";

/** Ends a deployment before it is live: withdrawn where nothing has begun, else undone. */
export function Withdraw({ view: { deployment } }: { view: Schemas["DeploymentView"] }) {
  const client = useQueryClient();
  const may = useMay();
  const { id, component, version, environment, status } = deployment;
  const ahead = deploymentState(status).phase === "ahead";
  if (!may("PROMOTE", { component, environment })) return null;
  if (!ahead && status !== "deploying" && status !== "checking") return null;
  return (
    <div className="my-3 print:hidden">
      <Ask
        danger
        label={ahead ? "Withdraw" : "Cancel"}
        title={`${ahead ? "Withdraw" : "Cancel"} deployment ${id}`}
        reason=""
        act={ahead ? `Withdraw ${version}` : `Cancel and undo ${version}`}
        what={
          <p>
            {ahead
              ? `Nothing has begun: ${component} ${version} is not deployed to ${environment}, ` +
                "and what is live there stays. Approvals given to it end with it."
              : `What was begun is undone: every host of ${component} in ${environment} ` +
                "that was touched gets back what it had."}
          </p>
        }
        onAct={async () => {
          await need(api.POST("/api/v1/deployments/{id}/cancellation", { params: { path: { id } } }));
          await client.invalidateQueries();
        }}
      />
    </div>
  );
}
