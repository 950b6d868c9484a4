import { useMemo } from "react";
import { useNavigate } from "react-router";
import type { Schemas } from "../../api/client";
import { Glyph } from "../../design/Glyph";
import { layout, NODE } from "../../design/graph";
import { workState } from "../../design/states";
import { styleOf, type Reached } from "./chain";

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
  const nodes = useMemo(() => members.map((member) => ({
    key: member.component, member, after: edges.filter((edge) => edge.downstream === member.component).map((edge) => edge.upstream), afterAny: [], ifFailed: [],
  })), [members, edges]);
  const shape = useMemo(() => layout(nodes), [nodes]);
  const edgeOf = (from: string, to: string) => edges.find((edge) => edge.upstream === from && edge.downstream === to);
  return (
    <div className="graph-scroll" tabIndex={0} role="region" aria-label="Components, and what starts what">
      <div className="graph" style={{ width: shape.width, height: shape.height }}>
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
            <button key={member.component} type="button" aria-pressed={member.component === selected} title={`${member.component}${member.newest ? `: ${member.newest.commitSummary}` : ""}`}
              className={`stage ${status ?? "waiting"} ${member.component === selected ? "selected" : ""} ${followed && !here ? "aside" : ""}`}
              style={{ left: x, top: y, width: NODE.width }} onClick={() => void navigate(`/components/${member.component}`)}>
              {state && <Glyph shape={state.shape} tone={state.tone} size={18} />}
              <span><b>{member.component}</b><i>{here?.words ?? (member.newest ? `#${member.newest.number} ${workState(member.newest.status).word}, ${member.newest.version}` : latest(member))}</i></span>
            </button>
          );
        })}
      </div>
    </div>
  );
}

const latest = (member: Schemas["MemberView"]) => member.live.at(-1) ? `${member.live.at(-1)?.version} in ${member.live.at(-1)?.environment}` : "no run yet";
