import { useMemo } from "react";
import type { Schemas } from "../../api/client";
import { layout, type GraphNode } from "../../design/graph";
import { Slab } from "../../design/Slab";
import { GRAPH, GRAPH_SCROLL } from "../../design/classes";

type PlanView = Schemas["PlanView"];

interface PlanNode extends GraphNode {
  variants: number;
  note: string;
}

/** What the text would do: what starts it, its stages as a graph, and its route. */
export function Plan({ plan, effect }: { plan: PlanView; effect: string }) {
  const shape = useMemo(
    () =>
      layout(
        plan.stages.map((stage): PlanNode => ({
          key: stage.name,
          after: stage.after,
          afterAny: stage.afterAny,
          ifFailed: stage.ifFailed,
          variants: stage.variants.length,
          note: [
            stage.mayFail && "may fail",
            stage.wantedIf && `if ${stage.wantedIf}`,
            stage.ifFailed.length > 0 && "if one failed",
            stage.keeps.length > 0 && `keeps ${stage.keeps.join(", ")}`,
          ]
            .filter(Boolean)
            .join("; "),
        })),
      ),
    [plan.stages],
  );
  const asks = Object.entries(plan.asks);
  return (
    <section className="min-w-0" aria-label="What it does">
      <p>{effect}</p>
      <div className={GRAPH_SCROLL} tabIndex={0} role="region" aria-label="Its stages">
        <div className={GRAPH} style={{ width: shape.width, height: shape.height }}>
          <svg width={shape.width} height={shape.height} aria-hidden="true">
            {shape.edges.map((edge) => (
              <path
                key={`${edge.from}>${edge.to}`}
                d={edge.path}
                className={`way ${edge.kind === "after" ? "walked" : "ahead"}`}
              />
            ))}
          </svg>
          {shape.nodes.map(({ node, x, y }) => (
            <Slab
              key={node.key}
              name={`${node.key}${node.variants > 1 ? ` × ${node.variants}` : ""}`}
              words={node.note}
              title={node.note || node.key}
              path="walked"
              ground="laid"
              x={x}
              y={y}
            />
          ))}
        </div>
      </div>
      {asks.length > 0 && (
        <p className="quiet">Asks: {asks.map(([name, ask]) => `${name} (${ask.question})`).join(", ")}</p>
      )}
      <p className="quiet">
        {plan.route.length === 0
          ? "Its versions go nowhere by themselves."
          : `Walks to ${plan.route
              .map((step) =>
                Object.entries(step)
                  .map(([name, mode]) => `${name}${mode === "automatic" ? "" : " on request"}`)
                  .join(" and "),
              )
              .join(", then ")}.`}
      </p>
    </section>
  );
}
