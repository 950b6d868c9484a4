import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Check, ExternalLink, X } from "lucide-react";
import { useState } from "react";
import { Link, useParams } from "react-router";
import { api, need } from "../../api/client";
import { passage as passageQuery } from "../../api/queries";
import { Checklist, tickPassage } from "../../design/Checklist";
import { Criteria } from "../../design/Criteria";
import { Loading, Trouble } from "../../design/parts";
import { At } from "../../design/time";
import { In } from "../../design/zone";
import { DECIDE, DECIDE_BUTTONS, TITLE_END } from "../../design/classes";

const PASSAGE_COLUMNS =
  "grid grid-cols-[minmax(0,3fr)_minmax(0,2fr)] gap-6 items-start max-[900px]:grid-cols-[minmax(0,1fr)]";

/** A version's stay in an environment: what keeps it there, and the list that ends it. */
export default function Passage() {
  const { id = "0" } = useParams();
  const client = useQueryClient();
  const passage = useQuery(passageQuery(Number(id)));
  if (passage.isPending) return <Loading height={420} />;
  if (passage.isLoadingError) return <Trouble whole error={passage.error} />;
  const view = passage.data;
  const fresh = () => client.invalidateQueries();
  const mine = view.mayNotTick === undefined;
  return (
    <In zone={view.zone}>
      <title>{`${view.component} ${view.version} in ${view.environment} · Paseo`}</title>
      <div className="title-line">
        <h1>
          {view.component} {view.version} in {view.environment}
        </h1>
        <p className={TITLE_END}>
          Passage {view.id}, since <At time={view.openedAt} />
          {view.endedAt && (
            <>
              , ended <At time={view.endedAt} />
            </>
          )}
          ; <Link to={`/deployments/${view.deployment}`}>deployment {view.deployment}</Link>
        </p>
      </div>
      <div className={PASSAGE_COLUMNS}>
        <section className="sheet pad">
          <h2>
            {view.status === "ended"
              ? "It has passed: the walk continues"
              : view.testFailed
                ? "It stays here because one of its tests failed"
                : view.settledAt
                  ? "What has to be done before it goes on"
                  : "It is still being watched and tested"}
          </h2>
          {view.testFailed && (
            <p className="bad">
              {view.reason} <Link to={`/deployments/${view.deployment}`}>Its log</Link>
            </p>
          )}
          <Checklist
            lists={view.checklists}
            mine={mine}
            onTick={async (said) => {
              await tickPassage(view.id, said);
              await fresh();
            }}
          />
          {view.checklists.length === 0 && <p className="quiet">No list is ticked here.</p>}
          {view.mayNot === undefined && (
            <Leave
              id={view.id}
              subject={view.subject}
              environment={view.environment}
              commentRequired={view.commentRequired}
            />
          )}
        </section>
        <section className="sheet pad">
          <h2>The gate onward</h2>
          <Criteria criteria={view.gate} decisions={view.decisions} mine={mine || view.mayNot === undefined} />
          {view.gate.length === 0 && (
            <p className="quiet">
              {view.status === "ended"
                ? "Nothing stands before it any more."
                : "Nothing is asked here but that it stays live and its tests pass."}
            </p>
          )}
          {view.url && (
            <p>
              <a className="btn" href={view.url} target="_blank" rel="noreferrer">
                <ExternalLink size={15} />
                Open {view.environment}
              </a>
            </p>
          )}
          <p className="text-[13px] text-ink-2">
            <Link to={`/versions/${view.component}/${view.version}`}>
              {view.component} {view.version}
            </Link>
            , <Link to={`/environments/${view.environment}`}>{view.environment}</Link>
          </p>
        </section>
      </div>
    </In>
  );
}

function Leave({
  id,
  subject,
  environment,
  commentRequired,
}: {
  id: number;
  subject: string | undefined;
  environment: string;
  commentRequired: boolean;
}) {
  const client = useQueryClient();
  const [comment, setComment] = useState("");
  const [wrong, setWrong] = useState("");
  const rule = async (yes: boolean) => {
    try {
      await need(
        api.POST("/api/v1/passages/{id}/decision", { params: { path: { id } }, body: { yes, comment, subject } }),
      );
      await client.invalidateQueries();
    } catch (error) {
      setWrong(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <form className={`decide ${DECIDE}`} onSubmit={(event) => event.preventDefault()}>
      <label htmlFor="comment">
        <b>May it leave {environment}?</b>{" "}
        <span className="quiet">{commentRequired ? "a comment is required" : ""}</span>
      </label>
      <textarea
        id="comment"
        className="input"
        rows={2}
        value={comment}
        onChange={(event) => setComment(event.target.value)}
        maxLength={2000}
      />
      <p className="field-error" role="alert">
        {wrong}
      </p>
      <div className={DECIDE_BUTTONS}>
        <button type="button" className="btn yes" onClick={() => void rule(true)}>
          <Check size={16} />
          Approve
        </button>
        <button type="button" className="btn danger" onClick={() => void rule(false)}>
          <X size={16} />
          Reject
        </button>
      </div>
    </form>
  );
}
