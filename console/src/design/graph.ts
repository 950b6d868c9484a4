import dagre from "@dagrejs/dagre";

/** A stage, or a component, as a graph draws it. */
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
  /** An SVG path in the path's hand: straight ways with round corners. */
  path: string;
  /** Just before its end. */
  tip: { x: number; y: number };
}

export interface Layout<T extends GraphNode> {
  nodes: Placed<T>[];
  edges: Edge[];
  width: number;
  height: number;
}

export const NODE = { width: 178, height: 52 };
/** From the middle of a slab to the way along its lower edge. */
const FOOT = NODE.height / 2 - 2;
const GAP = { ranks: 54, nodes: 10 };

const waits = (node: GraphNode): [string, Edge["kind"]][] => [
  ...node.after.map((key): [string, Edge["kind"]] => [key, "after"]),
  ...node.afterAny.map((key): [string, Edge["kind"]] => [key, "any"]),
  ...node.ifFailed.map((key): [string, Edge["kind"]] => [key, "failed"]),
];

const ROOT = " root";

/** Places stages from left to right, each right of what it waits for, and as far left as that allows. */
export function layout<T extends GraphNode>(nodes: T[]): Layout<T> {
  const graph = new dagre.graphlib.Graph();
  graph.setGraph({ rankdir: "LR", ranksep: GAP.ranks, nodesep: GAP.nodes, edgesep: GAP.nodes, marginx: 1, marginy: 4 });
  graph.setDefaultEdgeLabel(() => ({}));
  const known = new Set(nodes.map((node) => node.key));
  const edges = nodes.flatMap((node) =>
    waits(node)
      .filter(([key]) => known.has(key))
      .map(([from, kind]) => ({ from, to: node.key, kind })),
  );
  graph.setNode(ROOT, { width: 0, height: 0 });
  nodes.forEach((node) => graph.setNode(node.key, { ...NODE }));
  edges.forEach((edge) => graph.setEdge(edge.from, edge.to));
  nodes
    .filter((node) => !edges.some((edge) => edge.to === node.key))
    .forEach((node) => graph.setEdge(ROOT, node.key, { weight: 4 }));
  dagre.layout(graph);
  const at = (key: string) => graph.node(key) as Point;
  const left = nodes.length === 0 ? 0 : Math.min(...nodes.map((node) => at(node.key).x)) - NODE.width / 2 - 1;
  const shifted = (point: Point) => ({ x: point.x - left, y: point.y });
  const foot = (point: Point) => ({ ...shifted(point), y: point.y + FOOT });
  const placed = nodes.map((node) => ({
    node,
    x: shifted(at(node.key)).x - NODE.width / 2,
    y: at(node.key).y - NODE.height / 2,
  }));
  const columns = [...new Set(placed.map((each) => each.x + NODE.width / 2))];
  const ways = edges.map((edge): Edge => {
    const bends = (graph.edge(edge.from, edge.to) as { points: Point[] }).points
      .map(foot)
      .filter((point) => columns.some((x) => Math.abs(x - point.x) < 2));
    const end = foot(at(edge.to));
    return { ...edge, path: way([foot(at(edge.from)), ...bends, end]), tip: { x: end.x - NODE.width / 2, y: end.y } };
  });
  const { width = 0, height = 0 } = graph.graph();
  return { nodes: placed, edges: ways, width: Math.max(0, width - left), height };
}

interface Point {
  x: number;
  y: number;
}

/** A way through these points, which lie in columns: along, and across only in the gap before the next column. */
function way(points: Point[]): string {
  const first = points[0];
  const last = points.at(-1);
  if (!first || !last) return "";
  const path = [`M${first.x + NODE.width / 2} ${first.y}`];
  points.slice(1).forEach((to, at) => {
    const from = points[at] ?? to;
    const turn = to.x - NODE.width / 2 - GAP.ranks / 2;
    const down = to.y > from.y ? 1 : -1;
    const r = Math.min(9, Math.abs(to.y - from.y) / 2);
    if (r >= 0.5)
      path.push(
        `H${turn - r}Q${turn} ${from.y} ${turn} ${from.y + r * down}`,
        `V${to.y - r * down}Q${turn} ${to.y} ${turn + r} ${to.y}`,
      );
    path.push(`H${to === last ? last.x - NODE.width / 2 : to.x}`);
  });
  return path.join("");
}
