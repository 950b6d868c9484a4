import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, need, type Schemas } from "../api/client";
import { useFresh } from "../api/may";
import { Ask } from "./Ask";
import { Doing } from "./Doing";
import { TextField } from "./form";

type What = Schemas["RetiredView"]["what"];

interface RetireProps {
  what: What;
  name: string;
  environment?: string;
}

/** Takes something out of use; what hinders that, and what would follow, is said before. */
export function Retire({ what, name, environment }: RetireProps) {
  const [reason, setReason] = useState("");
  const [remove, setRemove] = useState(false);
  const fresh = useFresh();
  return (
    <Doing
      small
      danger
      label="Retire"
      title={`Retire ${name}`}
      what={<Follows what={what} name={name} environment={environment} remove={remove} onRemove={setRemove} />}
      act="Retire it"
      beside={["/reason"]}
      fields={(refused) => (
        <TextField label="Why" at="/reason" rows={2} refused={refused} value={reason} onType={setReason} />
      )}
      onAct={async () => {
        if (reason.trim() === "") throw new Error("Say why: it is kept in the audit trail.");
        await need(
          api.PUT("/api/v1/retirements/{what}/{name}", {
            params: { path: { what, name }, query: { environment } },
            body: { reason: reason.trim(), remove },
          }),
        );
        await fresh();
        return undefined;
      }}
    />
  );
}

interface FollowsProps extends RetireProps {
  environment: string | undefined;
  remove: boolean;
  onRemove: (remove: boolean) => void;
}

/** Read when the dialog opens. */
function Follows({ what, name, environment, remove, onRemove }: FollowsProps) {
  const known = useQuery({
    queryKey: ["retirement", what, name, environment, remove],
    staleTime: 0,
    queryFn: () =>
      need(
        api.GET("/api/v1/retirements/{what}/{name}", {
          params: { path: { what, name }, query: { environment, remove } },
        }),
      ),
  });
  if (known.isLoadingError) return <p className="bad">{known.error.message}</p>;
  if (known.isPending) return <p className="quiet">Reading what would follow…</p>;
  return (
    <>
      <p>It is used no more; its history stays, and it can be brought back.</p>
      {known.data.hinders.map((each) => (
        <p key={each} className="bad">
          Not yet: {each}.
        </p>
      ))}
      {known.data.follows.length > 0 && (
        <ul>
          {known.data.follows.map((each) => (
            <li key={each}>{each}</li>
          ))}
        </ul>
      )}
      {known.data.removable && (
        <label className="flag">
          <input type="checkbox" checked={remove} onChange={(event) => onRemove(event.target.checked)} />
          Take what is live off its hosts, too
        </label>
      )}
    </>
  );
}

/** What was retired comes back into use. */
export function BringBack({ what, name, environment, small }: RetireProps & { small?: boolean }) {
  const fresh = useFresh();
  return (
    <Ask
      small={small === true}
      label="Bring back"
      title={`Bring ${name} back into use`}
      what={<p>It is used again as it was. Nothing starts or is deployed by that alone.</p>}
      act="Bring it back"
      reason=""
      onAct={async () => {
        await need(
          api.DELETE("/api/v1/retirements/{what}/{name}", { params: { path: { what, name }, query: { environment } } }),
        );
        await fresh();
      }}
    />
  );
}
