import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useParams } from "react-router";
import { useFresh } from "../../api/may";
import { api, need, type Schemas } from "../../api/client";
import { Ask } from "../../design/Ask";
import { Loading, Trouble } from "../../design/parts";
import { At } from "../../design/time";
import { None, Rows, Sheet } from "./parts";
import { messages } from "./queries";

type View = Schemas["MessageView"];

const PAGE = 50;
const BODY = "m-0 max-w-[520px] font-mono text-[12px] whitespace-pre-wrap [overflow-wrap:anywhere]";

/** What a receiver was told, with each attempt; any of it can be sent again. */
export default function Messages() {
  const { name = "" } = useParams();
  const [before, setBefore] = useState<number>();
  const known = useQuery(messages(name, before));
  if (known.isPending) return <Loading />;
  if (known.isLoadingError) return <Trouble error={known.error} />;
  const last = known.data.at(-1);
  return (
    <>
      <title>{`Told to ${name} · Settings · Paseo`}</title>
      <p className="m-0 mb-2 text-[13px]">
        <Link to="/settings/receivers">Receivers of events</Link>
      </p>
      <Sheet lead title={`What ${name} was told`} about="The newest first." history={name}>
        {known.data.length === 0 && <None>Nothing {before ? "before that" : "yet"}.</None>}
        {known.data.length > 0 && (
          <Rows head={["Event", "State", "Attempts", ""]}>
            {known.data.map((each) => (
              <Message key={each.id} name={name} view={each} />
            ))}
          </Rows>
        )}
        <div className="mt-3 flex gap-2">
          {before !== undefined && (
            <button type="button" className="btn small" onClick={() => setBefore(undefined)}>
              The newest
            </button>
          )}
          {known.data.length === PAGE && last && (
            <button type="button" className="btn small" onClick={() => setBefore(last.id)}>
              Older
            </button>
          )}
        </div>
      </Sheet>
    </>
  );
}

function Message({ name, view }: { name: string; view: View }) {
  const fresh = useFresh();
  const last = view.attempts.at(-1);
  return (
    <tr>
      <td>
        <b>{view.type}</b>
        <div className="quiet">
          <At time={view.createdAt} />
        </div>
        <details>
          <summary className="cursor-pointer text-[12px] text-ink-2">What it says</summary>
          <pre className={BODY}>{view.body}</pre>
        </details>
      </td>
      <td>
        {view.state}
        {view.nextAt && (
          <div className="quiet">
            again <At time={view.nextAt} />
          </div>
        )}
      </td>
      <td>
        {view.attempts.length}
        {last && (
          <div className="quiet">
            the last took {last.millis} ms: {last.error ?? last.status}
          </div>
        )}
      </td>
      <td className="number">
        <Ask
          small
          label="Send again"
          title={`Send ${view.type} to ${name} again`}
          what={<p>It is sent as it was, whatever became of it, and tried for another day.</p>}
          act="Send it"
          reason=""
          onAct={async () => {
            await need(
              api.POST("/api/v1/receivers/{name}/messages/{id}/resend", { params: { path: { name, id: view.id } } }),
            );
            await fresh();
          }}
        />
      </td>
    </tr>
  );
}
