import dagre from "@dagrejs/dagre";

/** A stage as a graph draws it. */
export interface GraphNode {
  key: string;
  after: string[];
  afterAny: string[];
  ifFailed: string[];
}

export interface Placed<T extends GraphNode> {
  node: T;
  x: number;
  y: number;
}

export interface Edge {
  from: string;
  to: string;
  kind: "after" | "any" | "failed";
  /** An SVG path in the quay's hand: straight ways with round corners. */
  path: string;
}

export interface Layout<T extends GraphNode> {
  nodes: Placed<T>[];
  edges: Edge[];
  width: number;
  height: number;
}

export const NODE = { width: 178, height: 46 };
const GAP = { ranks: 54, nodes: 10 };

const waits = (node: GraphNode): [string, Edge["kind"]][] => [
  ...node.after.map((key): [string, Edge["kind"]] => [key, "after"]),
  ...node.afterAny.map((key): [string, Edge["kind"]] => [key, "any"]),
  ...node.ifFailed.map((key): [string, Edge["kind"]] => [key, "failed"]),
];

/** Places stages from left to right, each right of what it waits for. */
export function layout<T extends GraphNode>(nodes: T[]): Layout<T> {
  const graph = new dagre.graphlib.Graph();
  graph.setGraph({ rankdir: "LR", ranksep: GAP.ranks, nodesep: GAP.nodes, edgesep: 4, marginx: 1, marginy: 4 });
  graph.setDefaultEdgeLabel(() => ({}));
  const known = new Set(nodes.map((node) => node.key));
  nodes.forEach((node) => graph.setNode(node.key, { ...NODE }));
  nodes.forEach((node) => waits(node).filter(([key]) => known.has(key)).forEach(([key]) => graph.setEdge(key, node.key)));
  dagre.layout(graph);
  const at = (key: string) => graph.node(key) as { x: number; y: number };
  const placed = nodes.map((node) => ({ node, x: at(node.key).x - NODE.width / 2, y: at(node.key).y - NODE.height / 2 }));
  const edges = nodes.flatMap((node) => waits(node).filter(([key]) => known.has(key)).map(([from, kind]): Edge => ({
    from, to: node.key, kind, path: way(at(from), at(node.key)),
  })));
  const { width = 0, height = 0 } = graph.graph();
  return { nodes: placed, edges, width, height };
}

function way(from: { x: number; y: number }, to: { x: number; y: number }): string {
  const x1 = from.x + NODE.width / 2;
  const x2 = to.x - NODE.width / 2;
  if (Math.abs(from.y - to.y) < 1) return `M${x1} ${from.y}H${x2}`;
  const turn = x2 - GAP.ranks / 2;
  const down = to.y > from.y ? 1 : -1;
  const r = Math.min(9, Math.abs(to.y - from.y) / 2);
  return `M${x1} ${from.y}H${turn - r}Q${turn} ${from.y} ${turn} ${from.y + r * down}V${to.y - r * down}Q${turn} ${to.y} ${turn + r} ${to.y}H${x2}`;
}
