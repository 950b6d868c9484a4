import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { Glyph } from "../../design/Glyph";
import { WalkRow, type PathKind, type Stop } from "../../design/Walk";
import { Lozenge } from "../../design/parts";
import { workState } from "../../design/states";
import { lengthOf, useNow } from "../../design/time";

type View = Schemas["RunView"];
type Stage = Schemas["StageView"];

const pathAfter = (stage: Stage): PathKind =>
  stage.status === "passed" || stage.status === "warned" ? "walked" : stage.status === "running" ? "moving" : "ahead";

/** Stages as stops of a path, and at its end the version with the walk that it would have. */
export function StageLine({ view, selected, onSelect }: { view: View; selected: string | undefined; onSelect: (name: string) => void }) {
  return (
    <div className="stage-line" role="group" aria-label="Stages">
      {view.stages.map((stage) => (
        <div key={`${stage.name}/${stage.attempt}`} className="stage-part">
          <StagePill stage={stage} selected={stage.name === selected} onSelect={() => onSelect(stage.name)} />
          <i className={`path ${pathAfter(stage)}`} />
        </div>
      ))}
      <VersionEnd view={view} />
    </div>
  );
}

function StagePill({ stage, selected, onSelect }: { stage: Stage; selected: boolean; onSelect: () => void }) {
  const state = workState(stage.status);
  const now = useNow();
  const words = stage.startedAt ? `${state.word}, ${lengthOf(stage.startedAt, stage.endedAt ? new Date(stage.endedAt) : now)}` : state.word;
  return (
    <button type="button" aria-pressed={selected} className={`stage ${stage.status} ${selected ? "selected" : ""}`} onClick={onSelect}
      title={stage.reason}>
      <Glyph shape={state.shape} tone={state.tone} size={18} />
      <span><b>{stage.name}</b><i>{words}</i></span>
    </button>
  );
}

function VersionEnd({ view: { run, route } }: { view: View }) {
  const environments = route.flatMap((step) => Object.entries(step));
  const stops: Pick<Stop, "key" | "state" | "path" | "gate">[] = environments.map(([name, mode], at) => ({
    key: name, state: "ahead", path: at < environments.length - 1 ? "ahead" : "none", gate: mode === "on-request" ? "later" : undefined,
  }));
  const ended = run.endedAt !== undefined;
  const words = environments.map(([name, mode]) => `${name} ${mode === "automatic" ? "by itself" : "on request"}`).join(", ");
  return (
    <div className="stage-end">
      <div className="map-path">
        {run.sealed
          ? <Lozenge to={`/versions/${run.component}/${run.version}`} glyph={<Glyph shape="passed" tone="good" />}>{run.version}</Lozenge>
          : <Lozenge kind="ghost">{run.version}</Lozenge>}
        {stops.length > 0 && <WalkRow stops={stops} sentence={`then ${words}`} />}
      </div>
      <p>{run.sealed ? <Link to={`/versions/${run.component}/${run.version}`}>sealed; see its walk</Link> : ended ? "not sealed" : "sealed when all pass"}{words && !(ended && !run.sealed) && `; ${words}`}</p>
    </div>
  );
}
