import { useQuery, useQueryClient } from "@tanstack/react-query";
import { CircleX } from "lucide-react";
import { useState } from "react";
import { useParams, useSearchParams } from "react-router";
import { api, need, type Schemas } from "../../api/client";
import { run as runQuery } from "../../api/queries";
import { Glyph } from "../../design/Glyph";
import { bytes, Digest, Loading, Trouble } from "../../design/parts";
import { workState } from "../../design/states";
import { At, lengthOf, useNow } from "../../design/time";
import { Causes } from "./Causes";
import { Log } from "./Log";
import { StageLine } from "./StageLine";

type View = Schemas["RunView"];

const ENDED = ["passed", "warned", "failed", "cancelled"];

/** The stage that a reader most likely wants: the one that failed, else the one that runs, else the last that began. */
export function stageToShow(stages: Schemas["StageView"][]): string | undefined {
  const found = stages.find((stage) => stage.status === "failed") ?? stages.find((stage) => stage.status === "running")
    ?? stages.findLast((stage) => stage.startedAt) ?? stages[0];
  return found?.name;
}

export default function Run() {
  const { component = "", number = "0" } = useParams();
  const run = useQuery(runQuery(component, Number(number)));
  if (run.isPending) return <Loading height={520} />;
  if (run.isError) return <Trouble error={run.error} />;
  return <Shown key={`${component}#${number}`} view={run.data} />;
}

function Shown({ view }: { view: View }) {
  const { run, stages } = view;
  const [params, setParams] = useSearchParams();
  const selected = params.get("stage") ?? stageToShow(stages);
  const stage = stages.find((each) => each.name === selected);
  return (
    <>
      <title>{`${run.component} #${run.number} · Paseo`}</title>
      <RunTitle view={view} />
      <Causes links={view.causes} last={`${run.component} #${run.number}`} />
      {run.reason && <p className={`run-reason ${run.status === "failed" ? "bad" : "quiet"}`}>{run.reason}</p>}
      <StageLine view={view} selected={selected} onSelect={(name) => setParams({ stage: name }, { replace: true })} />
      <div className="run-columns">
        {stage && <Log key={`${stage.name}/${stage.attempt}`} component={run.component} number={run.number} stage={stage} />}
        <Side view={view} />
      </div>
    </>
  );
}

function RunTitle({ view: { run } }: { view: View }) {
  const state = workState(run.status);
  const now = useNow();
  const ended = ENDED.includes(run.status);
  return (
    <div className="title-line run-title">
      <h1><span className="up">{run.component}</span> #{run.number}</h1>
      <span className={`badge ${ended ? state.tone : "moving"}`}>
        <Glyph shape={state.shape} tone={ended ? state.tone : "ink"} />
        {state.word}{run.startedAt && `, ${lengthOf(run.startedAt, run.endedAt ? new Date(run.endedAt) : now)}`}
      </span>
      <p>{run.branch} at <code>{run.commit.slice(0, 7)}</code>, “{run.commitSummary}”</p>
      {!ended && <CancelRun view={run} />}
    </div>
  );
}

function CancelRun({ view }: { view: View["run"] }) {
  const client = useQueryClient();
  const [refused, setRefused] = useState("");
  const cancel = async () => {
    try {
      await need(api.POST("/api/v1/runs/{component}/{number}/cancellation", { params: { path: { component: view.component, number: view.number } } }));
      await client.invalidateQueries({ queryKey: ["run"] });
    } catch (error) {
      setRefused(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <div className="title-action">
      {refused && <span className="bad">{refused}</span>}
      <button type="button" className="btn" onClick={() => void cancel()}>
        <CircleX size={16} />{view.status === "cancelling" ? "End its steps at once" : "Cancel run"}
      </button>
    </div>
  );
}

function Side({ view: { run, outputs, causes } }: { view: View }) {
  return (
    <aside className="run-side">
      <h2>Files</h2>
      {outputs.length === 0 && <p className="quiet">{ENDED.includes(run.status) ? "No artifact was kept." : "No artifact yet. Stages keep them when they pass."}</p>}
      <table>
        <tbody>
          {outputs.map((output) => (
            <tr key={output.name}>
              <td><b>{output.name}</b><br /><span className="quiet">{output.fileName}</span></td>
              <td className="number"><Digest value={output.digest} /><br /><span className="quiet">{bytes(output.size)}</span></td>
            </tr>
          ))}
        </tbody>
      </table>
      <h2>Origin</h2>
      <dl className="facts">
        <dt>commit</dt><dd><code>{run.commit.slice(0, 12)}</code></dd>
        <dt>author</dt><dd>{run.commitAuthor}</dd>
        <dt>version</dt><dd><span className="v">{run.version}</span> {run.sealed ? "sealed" : "reserved"}</dd>
        {causes[0] && <><dt>started</dt><dd><At time={causes[0].at} /></dd></>}
      </dl>
    </aside>
  );
}
