import { useState } from "react";
import { api, need } from "../api/client";
import { useFresh, useMay } from "../api/may";
import { Ask } from "./Ask";
import { Doing } from "./Doing";
import { TextField } from "./form";

const HOUR = 3_600_000;
const LENGTHS: [hours: number, word: string][] = [
  [0, "until it is opened"],
  [1, "for an hour"],
  [4, "for four hours"],
  [24, "for a day"],
  [72, "for three days"],
  [168, "for a week"],
];

/** Closes an environment for every component, for as long as is said, or opens it again; for whoever may. */
export function Closing({ environment, closed }: { environment: string; closed: boolean }) {
  const fresh = useFresh();
  const may = useMay();
  const [reason, setReason] = useState("");
  const [hours, setHours] = useState(0);
  const params = { path: { name: environment } };
  if (!may("EDIT_ENVIRONMENT", { environment })) return null;
  if (closed) {
    return (
      <Ask
        label={`Open ${environment}`}
        title={`Open ${environment}`}
        reason="Why"
        act="Open it"
        what={
          <p>
            The closure is lifted: every component may be deployed to {environment} again, unless its calendar closes it
            as well. What waits goes on.
          </p>
        }
        onAct={async (why) => {
          await need(
            api.DELETE("/api/v1/environments/{name}/closure", { params: { ...params, query: { reason: why } } }),
          );
          await fresh();
        }}
      />
    );
  }
  return (
    <Doing
      label={`Close ${environment}`}
      title={`Close ${environment}`}
      act="Close it"
      what={
        <p>
          Nothing but rollbacks goes into {environment}, of any component, by anybody, until then. What is being
          deployed goes on.
        </p>
      }
      beside={["/reason"]}
      fields={(refused) => (
        <>
          <TextField
            label="Why"
            about="required, kept in the audit trail"
            at="/reason"
            rows={2}
            refused={refused}
            value={reason}
            onType={setReason}
          />
          <label>
            <b>How long</b>
            <select value={hours} onChange={(event) => setHours(Number(event.target.value))}>
              {LENGTHS.map(([value, word]) => (
                <option key={value} value={value}>
                  {word}
                </option>
              ))}
            </select>
          </label>
        </>
      )}
      onAct={async () => {
        if (reason.trim() === "") throw new Error("Say why: it is kept in the audit trail.");
        const until = hours === 0 ? undefined : new Date(Date.now() + hours * HOUR).toISOString();
        await need(api.PUT("/api/v1/environments/{name}/closure", { params, body: { reason: reason.trim(), until } }));
        setReason("");
        await fresh();
        return undefined;
      }}
    />
  );
}
