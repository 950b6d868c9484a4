import { useMemo } from "react";
import { useNavigate } from "react-router";
import type { Schemas } from "../../api/client";
import { Glyph } from "../../design/Glyph";
import { layout } from "../../design/graph";
import { Slab } from "../../design/Slab";
import { workState } from "../../design/states";
import { styleOf, type Reached } from "./chain";
import { GRAPH, GRAPH_SCROLL } from "../../design/classes";

interface Props {
  members: Schemas["MemberView"][];
  edges: Schemas["EdgeView"][];
  /** What the followed change made of each component that it reached. */
  followed: Reached | undefined;
  selected: string;
}

/** Components from left to right, each right of what starts it; the latest that came along each way. */
export function ChainGraph({ members, edges, followed, selected }: Props) {
  const navigate = useNavigate();
  const nodes = useMemo(
    () =>
      members.map((member) => ({
        key: member.component,
        member,
        after: edges.filter((edge) => edge.downstream === member.component).map((edge) => edge.upstream),
        afterAny: [],
        ifFailed: [],
      })),
    [members, edges],
  );
  const shape = useMemo(() => layout(nodes), [nodes]);
  const edgeOf = (from: string, to: string) => edges.find((edge) => edge.upstream === from && edge.downstream === to);
  return (
    <div className={GRAPH_SCROLL} tabIndex={0} role="region" aria-label="Components, and what starts what">
      <div className={GRAPH} style={{ width: shape.width, height: shape.height }}>
        <svg width={shape.width} height={shape.height} aria-hidden="true">
          {shape.edges.map((each) => {
            const edge = edgeOf(each.from, each.to);
            const style = edge ? styleOf(edge, followed) : "ahead";
            return (
              <g key={`${each.from}>${each.to}`}>
                <path d={each.path} className={`way ${style === "stopped" ? "ahead" : style}`} />
                {style === "stopped" && <path d={`M${each.tip.x - 14} ${each.tip.y - 8}v16`} className="way stop" />}
              </g>
            );
          })}
        </svg>
        {shape.nodes.map(({ node: { member }, x, y }) => {
          const there = followed?.get(member.component);
          const here = there !== undefined && there !== "nothing" ? there : undefined;
          const status = here?.status ?? member.newest?.status;
          const state = status ? workState(status) : undefined;
          return (
            <Slab
              key={member.component}
              name={member.component}
              glyph={state && <Glyph shape={state.shape} tone={state.tone} size={14} />}
              words={
                here?.words ??
                (member.newest
                  ? `#${member.newest.number} ${workState(member.newest.status).word}, ${member.newest.version}`
                  : latest(member))
              }
              path={status === "running" ? "moving" : followed && !here ? "ahead" : "walked"}
              ground={(followed && !here) || !status ? "open" : "laid"}
              tone={status === "failed" || status === "warned" ? status : undefined}
              x={x}
              y={y}
              selected={member.component === selected}
              title={`${member.component}${member.newest ? `: ${member.newest.commitSummary}` : ""}`}
              onSelect={() => void navigate(`/components/${member.component}`)}
            />
          );
        })}
      </div>
    </div>
  );
}

const latest = (member: Schemas["MemberView"]) =>
  member.live.at(-1) ? `${member.live.at(-1)?.version} in ${member.live.at(-1)?.environment}` : "no run yet";
