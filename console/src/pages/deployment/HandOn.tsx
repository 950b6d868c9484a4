import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, need, type Schemas } from "../../api/client";
import { me } from "../../api/queries";
import { Ask } from "../../design/Ask";
import { Doing } from "../../design/Doing";
import { wrongAt } from "../../design/form";

/** Somebody else decides about this deployment in one's place. */
export function HandOn({ id }: { id: number }) {
  const [to, setTo] = useState("");
  const client = useQueryClient();
  return (
    <Doing
      small
      label="Hand on"
      title={`Hand on your decision about deployment ${id}`}
      what={
        <p>
          They may decide about this deployment in your place, and it waits for them, too. What they say is shown as
          said in your place.
        </p>
      }
      act="Hand it on"
      beside={["/to"]}
      fields={(refused) => (
        <label>
          <b>To</b> <span className="quiet">the name of an account</span>
          <input
            className="input"
            value={to}
            aria-invalid={wrongAt(refused, "/to") ? true : undefined}
            onChange={(event) => setTo(event.target.value)}
          />
          <span className="field-error">{wrongAt(refused, "/to")}</span>
        </label>
      )}
      onAct={async () => {
        await need(
          api.POST("/api/v1/deployments/{id}/handover", { params: { path: { id } }, body: { to: to.trim() } }),
        );
        await client.invalidateQueries();
        return undefined;
      }}
    />
  );
}

/** Offered to whoever approved, as long as it waits. */
export function TakeBack({ view }: { view: Schemas["DeploymentView"] }) {
  const client = useQueryClient();
  const who = useQuery(me());
  const { id, status, version } = view.deployment;
  const mine = view.decisions.some((decision) => decision.by === who.data?.name && decision.yes && decision.counts);
  if (status !== "waiting" || !mine) return null;
  return (
    <div className="my-3 print:hidden">
      <Ask
        label="Take my approval back"
        title={`Take back your approval of ${version}`}
        what={<p>It counts no more; the gate waits for it again. That you gave it, and took it back, is kept.</p>}
        act="Take it back"
        reason=""
        onAct={async () => {
          await need(api.DELETE("/api/v1/deployments/{id}/decision", { params: { path: { id } } }));
          await client.invalidateQueries();
        }}
      />
    </div>
  );
}
