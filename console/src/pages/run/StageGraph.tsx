import { useMemo } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { Glyph } from "../../design/Glyph";
import { WalkRow, type Stop } from "../../design/Walk";
import { Lozenge } from "../../design/parts";
import { workState } from "../../design/states";
import { lengthOf, useNow } from "../../design/time";
import { layout, type Edge } from "../../design/graph";
import { Slab } from "../../design/Slab";
import { nodesOf, spanOf, type Stage, type StageNode } from "./stages";
import { GRAPH, GRAPH_SCROLL, MAP_PATH } from "../../design/classes";

const STAGE_END =
  "min-w-62.5 flex-none w-62.5 [--gbg:var(--ground)] [&_.walk-row]:[--gbg:var(--ground)] [&_.walk-row]:max-w-45 " +
  "[&_p]:text-[12px] [&_p]:leading-4 [&_p]:text-ink-2 [&_p]:mt-1";

type View = Schemas["RunView"];

const begins = (status: string) => ["moving", "walked", "broken"].includes(workState(status).phase);

/** The line style of the way from one stage to another. */
function style(from: StageNode | undefined, to: StageNode | undefined): string {
  if (to?.status === "running") return "moving";
  return from && spanOf(from.variants).ended && to && begins(to.status) ? "walked" : "ahead";
}

interface Props {
  view: View;
  selected: string | undefined;
  onSelect: (stage: Stage) => void;
}

/** The stages of a run as a graph from left to right, live, and at its end the version still to come. */
export function StageGraph({ view, selected, onSelect }: Props) {
  const nodes = useMemo(() => nodesOf(view.stages), [view.stages]);
  const shape = useMemo(() => layout(nodes), [nodes]);
  const byKey = new Map(nodes.map((node) => [node.key, node]));
  return (
    <div className={GRAPH_SCROLL} tabIndex={0} role="region" aria-label="Stages">
      <div className={GRAPH} style={{ width: shape.width, height: shape.height }}>
        <svg width={shape.width} height={shape.height} aria-hidden="true">
          {shape.edges.map((edge: Edge) => (
            <path
              key={`${edge.from}>${edge.to}`}
              d={edge.path}
              className={`way ${style(byKey.get(edge.from), byKey.get(edge.to))} ${edge.kind}`}
            />
          ))}
        </svg>
        {shape.nodes.map(({ node, x, y }) => (
          <StageSlab
            key={node.key}
            node={node}
            selected={node.key === selected}
            x={x}
            y={y}
            onSelect={() =>
              onSelect(node.variants.find((stage) => stage.status === node.status) ?? (node.variants[0] as Stage))
            }
          />
        ))}
      </div>
      <VersionEnd view={view} />
    </div>
  );
}

interface SlabProps {
  node: StageNode;
  selected: boolean;
  x: number;
  y: number;
  onSelect: () => void;
}

function StageSlab({ node, selected, x, y, onSelect }: SlabProps) {
  const state = workState(node.status);
  const now = useNow();
  const { began, ended, away } = spanOf(node.variants);
  const attempt = Math.max(...node.variants.map((stage) => stage.attempt));
  const length = began ? `, ${lengthOf(began, ended ? new Date(ended) : now, away)}` : "";
  const first = node.variants[0];
  const begun = begins(node.status);
  return (
    <Slab
      name={`${node.key}${node.variants.length > 1 ? ` × ${node.variants.length}` : ""}`}
      glyph={<Glyph shape={state.shape} tone={state.tone} size={14} />}
      words={`${words(node, state.word)}${length}${attempt > 1 ? `, attempt ${attempt}` : ""}`}
      path={node.status === "running" ? "moving" : begun ? "walked" : "ahead"}
      ground={begun ? "laid" : "open"}
      tone={node.status === "failed" || node.status === "warned" ? node.status : undefined}
      x={x}
      y={y}
      selected={selected}
      onSelect={onSelect}
      title={first?.waitsFor ?? first?.reason ?? node.key}
    />
  );
}

function words(node: StageNode, word: string): string {
  if (node.status === "skipped")
    return node.variants[0]?.reason?.startsWith("not wanted") ? "not wanted" : "unattainable";
  const like = node.variants.filter((stage) => stage.status === node.status).length;
  return like < node.variants.length ? `${like} ${word}` : word;
}

function VersionEnd({ view: { run, route } }: { view: View }) {
  const environments = route.flatMap((step) => Object.entries(step));
  const stops: Pick<Stop, "key" | "state" | "path" | "gate">[] = environments.map(([name, mode], at) => ({
    key: name,
    state: "ahead",
    path: at < environments.length - 1 ? "ahead" : "none",
    gate: mode === "on-request" ? "later" : undefined,
  }));
  const ended = run.endedAt !== undefined;
  const sentence = environments
    .map(([name, mode]) => `${name} ${mode === "automatic" ? "by itself" : "on request"}`)
    .join(", ");
  return (
    <div className={STAGE_END}>
      <div className={MAP_PATH}>
        {run.sealed ? (
          <Lozenge to={`/versions/${run.component}/${run.version}`} glyph={<Glyph shape="passed" tone="good" />}>
            {run.version}
          </Lozenge>
        ) : (
          <Lozenge kind="ghost">{run.version}</Lozenge>
        )}
        {stops.length > 0 && <WalkRow stops={stops} sentence={`then ${sentence}`} />}
      </div>
      <p>
        {run.sealed ? (
          <Link to={`/versions/${run.component}/${run.version}`}>sealed; see its walk</Link>
        ) : ended ? (
          "not sealed"
        ) : (
          "sealed when all pass"
        )}
        {sentence && !(ended && !run.sealed) && `; ${sentence}`}
      </p>
    </div>
  );
}
