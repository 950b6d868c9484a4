import { useMemo } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { Glyph } from "../../design/Glyph";
import { WalkRow, type Stop } from "../../design/Walk";
import { Lozenge } from "../../design/parts";
import { workState } from "../../design/states";
import { lengthOf, useNow } from "../../design/time";
import { layout, NODE, type Edge } from "./graph";
import { attemptsOf, keyOf, nodesOf, type Stage } from "./stages";

type View = Schemas["RunView"];

const BEGUN = ["running", "passed", "warned", "failed"];

/** The line style of the way from one stage to another. */
function style(from: Stage | undefined, to: Stage | undefined): string {
  if (to?.status === "running") return "moving";
  return from?.endedAt && to && BEGUN.includes(to.status) ? "walked" : "ahead";
}

/** The stages of a run as a graph from left to right, live, and at its end the version still to come. */
export function StageGraph({ view, selected, onSelect }: { view: View; selected: string | undefined; onSelect: (stage: Stage) => void }) {
  const nodes = useMemo(() => nodesOf(view.stages), [view.stages]);
  const shape = useMemo(() => layout(nodes), [nodes]);
  const byKey = new Map(nodes.map((node) => [node.key, node.stage]));
  return (
    <div className="graph-scroll" tabIndex={0} role="region" aria-label="Stages">
      <div className="graph" style={{ width: shape.width, height: shape.height }}>
        <svg width={shape.width} height={shape.height} aria-hidden="true">
          {shape.edges.map((edge: Edge) => (
            <path key={`${edge.from}>${edge.to}`} d={edge.path} className={`way ${style(byKey.get(edge.from), byKey.get(edge.to))} ${edge.kind}`} />
          ))}
        </svg>
        {shape.nodes.map(({ node, x, y }) => (
          <StagePill key={node.key} stage={node.stage} attempts={attemptsOf(view.stages, node.stage).length} selected={node.key === selected} x={x} y={y}
            onSelect={() => onSelect(node.stage)} />
        ))}
      </div>
      <VersionEnd view={view} />
    </div>
  );
}

interface PillProps {
  stage: Stage;
  attempts: number;
  selected: boolean;
  x: number;
  y: number;
  onSelect: () => void;
}

function StagePill({ stage, attempts, selected, x, y, onSelect }: PillProps) {
  const state = workState(stage.status);
  const now = useNow();
  const length = stage.startedAt ? `, ${lengthOf(stage.startedAt, stage.endedAt ? new Date(stage.endedAt) : now)}` : "";
  return (
    <button type="button" aria-pressed={selected} className={`stage ${stage.status} ${selected ? "selected" : ""}`} onClick={onSelect}
      style={{ left: x, top: y, width: NODE.width }} title={stage.waitsFor ?? stage.reason ?? keyOf(stage)}>
      <Glyph shape={state.shape} tone={state.tone} size={18} />
      <span><b>{keyOf(stage)}</b><i>{words(stage, state.word)}{length}{attempts > 1 ? `, attempt ${stage.attempt}` : ""}</i></span>
    </button>
  );
}

function words(stage: Stage, word: string): string {
  if (stage.status === "skipped") return stage.reason?.startsWith("not wanted") ? "not wanted" : "unattainable";
  return word;
}

function VersionEnd({ view: { run, route } }: { view: View }) {
  const environments = route.flatMap((step) => Object.entries(step));
  const stops: Pick<Stop, "key" | "state" | "path" | "gate">[] = environments.map(([name, mode], at) => ({
    key: name, state: "ahead", path: at < environments.length - 1 ? "ahead" : "none", gate: mode === "on-request" ? "later" : undefined,
  }));
  const ended = run.endedAt !== undefined;
  const sentence = environments.map(([name, mode]) => `${name} ${mode === "automatic" ? "by itself" : "on request"}`).join(", ");
  return (
    <div className="stage-end">
      <div className="map-path">
        {run.sealed
          ? <Lozenge to={`/versions/${run.component}/${run.version}`} glyph={<Glyph shape="passed" tone="good" />}>{run.version}</Lozenge>
          : <Lozenge kind="ghost">{run.version}</Lozenge>}
        {stops.length > 0 && <WalkRow stops={stops} sentence={`then ${sentence}`} />}
      </div>
      <p>{run.sealed ? <Link to={`/versions/${run.component}/${run.version}`}>sealed; see its walk</Link> : ended ? "not sealed" : "sealed when all pass"}{sentence && !(ended && !run.sealed) && `; ${sentence}`}</p>
    </div>
  );
}
