import { useQuery } from "@tanstack/react-query";
import { Tabs } from "radix-ui";
import { lazy, Suspense } from "react";
import { useParams, useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { run as runQuery } from "../../api/queries";
import { Log } from "../../log/Log";
import { ofStage } from "../../log/source";
import { Glyph } from "../../design/Glyph";
import { Loading, Trouble } from "../../design/parts";
import { workState } from "../../design/states";
import { lengthOf, useNow, without } from "../../design/time";
import { Causes } from "./Causes";
import { RunActions } from "./RunActions";
import { Side } from "./Side";
import { StageGraph } from "./StageGraph";
import { keyOf, stageToShow, type Stage } from "./stages";
import { RUN_COLUMNS } from "../../design/classes";
import { TABS } from "../../design/tabs";

const Tests = lazy(() => import("./Tests"));
const Coverage = lazy(() => import("./Coverage"));
const Findings = lazy(() => import("./Findings"));
const Compare = lazy(() => import("./Compare"));
const TimeAxis = lazy(() => import("./TimeAxis"));

type View = Schemas["RunView"];

/** Without stages there is nothing but what changed. */
const PARTS = [
  ["log", "Log"],
  ["times", "Times"],
  ["tests", "Tests"],
  ["coverage", "Coverage"],
  ["findings", "Findings"],
  ["compare", "Compare"],
];

export default function Run() {
  const { component = "", number = "0" } = useParams();
  const run = useQuery(runQuery(component, Number(number)));
  if (run.isPending) return <Loading height={520} />;
  if (run.isLoadingError) return <Trouble whole error={run.error} />;
  return <Shown key={`${component}#${number}`} view={run.data} />;
}

/** Which attempt of which stage the address asks for. */
function chosen(stages: Stage[], params: URLSearchParams): Stage | undefined {
  const of = stages.filter(
    (stage) =>
      stage.name === params.get("stage") && (stage.variant === (params.get("variant") ?? "") || !params.has("variant")),
  );
  return of.find((stage) => String(stage.attempt) === params.get("attempt")) ?? of.at(-1) ?? stageToShow(stages);
}

function Shown({ view }: { view: View }) {
  const { run, stages } = view;
  const [params, setParams] = useSearchParams();
  const stage = chosen(stages, params);
  const select = (next: Stage) =>
    setParams(
      { stage: next.name, ...(next.variant && { variant: next.variant }), attempt: String(next.attempt) },
      { replace: true },
    );
  const built = stages.length > 0;
  const part = params.get("part") ?? (built ? "log" : "compare");
  const turn = (next: string) =>
    setParams(
      (before) => {
        before.set("part", next);
        return before;
      },
      { replace: true },
    );
  return (
    <>
      <title>{`${run.component} #${run.number} · Paseo`}</title>
      <RunTitle view={view} />
      <Causes links={view.causes} last={`${run.component} #${run.number}`} />
      {run.reason && <p className={`pt-2 font-[560] ${run.status === "failed" ? "bad" : "quiet"}`}>{run.reason}</p>}
      {view.waitsForRun && (
        <p className="pt-2 font-[560] quiet">Waits for #{view.waitsForRun}, the run of its branch before it, to end.</p>
      )}
      {built ? (
        <StageGraph view={view} selected={stage?.name} onSelect={select} />
      ) : (
        <p className="pt-2 font-[560] quiet">No stages: nothing is built, the commit’s files are the artifact.</p>
      )}
      <div className={RUN_COLUMNS}>
        <Tabs.Root value={part} onValueChange={turn} className="min-w-0">
          <Tabs.List className={TABS} aria-label="Parts of the run">
            {PARTS.slice(built ? 0 : -1).map(([value = "", word]) => (
              <Tabs.Trigger key={value} value={value}>
                {word}
              </Tabs.Trigger>
            ))}
          </Tabs.List>
          <Tabs.Content value="log">
            {stage && <Choices stages={stages} stage={stage} onSelect={select} />}
            {stage && (
              <Log key={`${keyOf(stage)}/${stage.attempt}`} source={ofStage(run.component, run.number, stage)} />
            )}
          </Tabs.Content>
          <Suspense fallback={<Loading height={300} />}>
            <Tabs.Content value="times">
              <TimeAxis view={view} onSelect={select} />
            </Tabs.Content>
            <Tabs.Content value="tests">
              <Tests component={run.component} number={run.number} />
            </Tabs.Content>
            <Tabs.Content value="coverage">
              <Coverage component={run.component} number={run.number} />
            </Tabs.Content>
            <Tabs.Content value="findings">
              <Findings component={run.component} number={run.number} />
            </Tabs.Content>
            <Tabs.Content value="compare">
              <Compare component={run.component} number={run.number} branch={run.branch} />
            </Tabs.Content>
          </Suspense>
        </Tabs.Root>
        <Side view={view} stage={stage} />
      </div>
    </>
  );
}

/** Where a stage has variants, or was tried more than once, each is there to be looked at. */
function Choices({ stages, stage, onSelect }: { stages: Stage[]; stage: Stage; onSelect: (stage: Stage) => void }) {
  const all = stages.filter((each) => each.name === stage.name);
  if (all.length < 2) return null;
  const several = all.some((each) => each.attempt > 1);
  const label = (each: Stage) =>
    [each.variant, several && `attempt ${each.attempt}`, workState(each.status).word].filter(Boolean).join(", ");
  return (
    <div className="flex flex-wrap gap-2 mb-2" role="group" aria-label={`Variants and attempts of ${stage.name}`}>
      {all.map((each) => (
        <button
          key={`${each.variant}/${each.attempt}`}
          type="button"
          className="btn small"
          aria-pressed={each === stage}
          onClick={() => onSelect(each)}
        >
          <Glyph shape={workState(each.status).shape} tone={workState(each.status).tone} />
          {label(each)}
        </button>
      ))}
    </div>
  );
}

function RunTitle({ view }: { view: View }) {
  const { run } = view;
  const state = workState(run.status);
  const now = useNow();
  const ended = !["ahead", "moving"].includes(state.phase);
  return (
    <div className="title-line run-title">
      <h1>
        <span className="text-ink-2 font-medium">{run.component}</span> #{run.number}
      </h1>
      <span className={`badge ${ended ? state.tone : "moving"}`}>
        <Glyph shape={state.shape} tone={ended ? state.tone : "ink"} />
        {state.word}
        {run.startedAt &&
          `, ${lengthOf(run.startedAt, run.endedAt ? new Date(run.endedAt) : now, run.away)}${without(run.away)}`}
      </span>
      <p>
        {run.branch} at <code>{run.commit.slice(0, 7)}</code>, “{run.commitSummary}”
      </p>
      <RunActions run={run} />
    </div>
  );
}
