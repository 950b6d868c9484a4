import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, need, type Schemas } from "../../api/client";
import { useMay } from "../../api/may";
import { usePromotion } from "../../api/promote";
import { versions } from "../../api/queries";
import { Doing } from "../../design/Doing";

type View = Schemas["PlaceView"];

/** Another version onto this place: the newest are offered. */
export function Onto({ view }: { view: View }) {
  const known = useQuery(versions(view.component));
  const promote = usePromotion();
  const may = useMay();
  const others = known.data?.filter((number) => number !== view.version) ?? [];
  const [chosen, setChosen] = useState("");
  const version = others.includes(chosen) ? chosen : others[0];
  if (!may("PROMOTE", { component: view.component, environment: view.environment }) || !version || view.retired)
    return null;
  return (
    <form
      className="grid gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        promote(view.component, version, view.environment);
      }}
    >
      <label className="grid min-w-0 gap-1 text-[12px] text-ink-2">
        Another version
        <select value={version} onChange={(event) => setChosen(event.target.value)}>
          {others.map((number) => (
            <option key={number}>{number}</option>
          ))}
        </select>
      </label>
      <button type="submit" className="btn">
        Promote
      </button>
    </form>
  );
}

/** Writes down what is live already, where nothing was deployed by Paseo yet. */
export function Record({ view }: { view: View }) {
  const known = useQuery(versions(view.component));
  const client = useQueryClient();
  const may = useMay();
  const [version, setVersion] = useState("");
  const [reason, setReason] = useState("");
  const chosen = version || known.data?.[0] || "";
  if (
    !may("EDIT_ENVIRONMENT", { component: view.component, environment: view.environment }) ||
    view.version ||
    view.retired ||
    !chosen
  )
    return null;
  return (
    <Doing
      label="Record what is live"
      title={`Record what is live in ${view.environment}`}
      what={<p>Nothing is deployed: it is written down as live, so that what comes next is compared with it.</p>}
      act={`Record ${chosen}`}
      beside={[]}
      fields={() => (
        <>
          <label>
            <b>Version</b>
            <select value={chosen} onChange={(event) => setVersion(event.target.value)}>
              {known.data?.map((number) => (
                <option key={number}>{number}</option>
              ))}
            </select>
          </label>
          <label>
            <b>How you know</b> <span className="quiet">required, kept in the audit trail</span>
            <textarea className="input" rows={2} value={reason} onChange={(event) => setReason(event.target.value)} />
          </label>
        </>
      )}
      onAct={async () => {
        await need(
          api.POST("/api/v1/places/{component}/{environment}/record", {
            params: { path: { component: view.component, environment: view.environment } },
            body: { version: chosen, reason: reason.trim() },
          }),
        );
        await client.invalidateQueries();
        return undefined;
      }}
    />
  );
}
