import { isAlias, isMap, isScalar, isSeq, parseDocument, visit, type Document, type Node, type Pair } from "yaml";
import { lineStart, spansOf } from "./spans";
import { block, entry, flow, scalar, type Value } from "./written";

export type { Value };

/** Changes of a YAML text that touch only what they change: comments, order and style of all else stay as they are. */

export type Path = (string | number)[];

/** A text that forms can change, or why they cannot. */
export type Opened = { doc: Document; why?: undefined } | { why: string };

/** A change that this text does not take as it is written. */
export class NotByForm extends Error {}

const REFUSED = "As this is written, a form would change more than that: change it in the text.";

let last: { text: string; opened: Opened } | undefined;

export function open(text: string): Opened {
  if (last?.text === text) return last.opened;
  const opened = read(text);
  last = { text, opened };
  return opened;
}

function read(text: string): Opened {
  const doc = parseDocument(text);
  const wrong = doc.errors[0];
  if (wrong) {
    const line = text.slice(0, wrong.pos[0]).split("\n").length;
    return { why: `Forms wait until line ${line} of the text can be read.` };
  }
  if (doc.contents !== null && !isMap(doc.contents)) return { why: "The text is no pipeline file yet." };
  let anchored = false;
  visit(doc, (_, node) => {
    if (isAlias(node) || (node && typeof node === "object" && "anchor" in node && node.anchor)) anchored = true;
  });
  return anchored ? { why: "The text has anchors (& and *), which forms leave alone: change it there." } : { doc };
}

/** What a text says at a path. */
export function valueAt(opened: Opened, path: Path): unknown {
  if (opened.why !== undefined) return undefined;
  const found = path.length === 0 ? opened.doc.contents : opened.doc.getIn(path, true);
  return isMap(found) || isSeq(found) || isScalar(found) ? found.toJSON() : found;
}

/** The keys of a mapping at a path, without reading what they hold. */
export function keysAt(opened: Opened, path: Path): string[] {
  const found: unknown = opened.why === undefined ? opened.doc.getIn(path, true) : undefined;
  return isMap(found) ? found.items.map((pair) => String(toJson(pair.key))) : [];
}

/** The line where something stands, from 1. */
export function lineOf(text: string, path: Path): number {
  const opened = open(text);
  const node = opened.why === undefined ? (opened.doc.getIn(path, true) as Node | undefined) : undefined;
  return text.slice(0, node?.range?.[0] ?? 0).split("\n").length;
}

/**
 * Sets a value, or takes it away where it is undefined; what held nothing else goes with it, but for the first steps of
 * the path that stay, if need be with nothing in them.
 */
export function set(text: string, path: Path, value: Value | undefined, stay = 0): string {
  if (value !== undefined) return checked(text, path, value, (doc) => put(text, doc, path, value));
  const alone = (at: Path) => entries(valueAt(open(text), at.slice(0, -1))).length === 1;
  let gone = path;
  while (gone.length - 1 > stay && alone(gone)) gone = gone.slice(0, -1);
  const parent = gone.slice(0, -1);
  return parent.length > 0 && alone(gone)
    ? checked(text, parent, {}, (doc) => put(text, doc, parent, {}))
    : checked(text, gone, undefined, (doc) => taken(text, doc, gone));
}

/** Puts an entry of a list or a mapping to where another is. */
export function move(text: string, parent: Path, from: number, to: number): string {
  if (from === to) return text;
  const doc = writable(text);
  const holder = parent.length === 0 ? doc.contents : doc.getIn(parent, true);
  if (!isMap(holder) && !isSeq(holder)) throw new NotByForm(REFUSED);
  const spans = spansOf(text, holder);
  const order = spans.map((_, at) => at);
  const [moved] = order.splice(from, 1);
  if (moved === undefined) throw new NotByForm(REFUSED);
  order.splice(to, 0, moved);
  let made = "";
  let end = 0;
  spans.forEach(([start, stop], at) => {
    const source = spans[order[at] ?? at] ?? [start, stop];
    made += text.slice(end, start) + text.slice(source[0], source[1]);
    end = stop;
  });
  made += text.slice(end);
  const before = entries(holder.toJSON());
  return sure(made, parent, (found) =>
    same(
      entries(found),
      order.map((at) => before[at]),
    ),
  );
}

/** Gives the key of a mapping another name. */
export function rename(text: string, path: Path, name: string): string {
  const doc = writable(text);
  const pair = pairAt(doc, path);
  const range = (pair?.key as Node | undefined)?.range;
  if (!range) throw new NotByForm(REFUSED);
  const made = text.slice(0, range[0]) + scalar(name) + text.slice(range[1]);
  return sure(made, [...path.slice(0, -1), name], (found) => same(found, toJson(pair?.value)));
}

function writable(text: string): Document {
  const opened = open(text);
  if (opened.why !== undefined) throw new NotByForm(opened.why);
  return opened.doc;
}

/** Nothing is written that does not say exactly what was meant. */
function checked(text: string, path: Path, value: Value | undefined, change: (doc: Document) => string): string {
  const doc = writable(text);
  const wanted = withValue(doc.toJS() as unknown, path, value);
  return sure(change(doc), [], (found) => same(found, wanted));
}

function sure(made: string, path: Path, right: (found: unknown) => boolean): string {
  const opened = open(made);
  if (opened.why !== undefined || !right(valueAt(opened, path))) throw new NotByForm(REFUSED);
  return made;
}

const entries = (value: unknown): unknown[] =>
  Array.isArray(value) ? value : Object.entries((value ?? {}) as Record<string, unknown>);

const same = (one: unknown, two: unknown): boolean => JSON.stringify(one ?? null) === JSON.stringify(two ?? null);

const toJson = (node: unknown): unknown => (isMap(node) || isSeq(node) || isScalar(node) ? node.toJSON() : node);

function withValue(root: unknown, path: Path, value: Value | undefined): unknown {
  const [step, ...rest] = path;
  if (step === undefined) return value;
  if (typeof step === "number") {
    const list = [...((root ?? []) as unknown[])];
    if (rest.length === 0 && value === undefined) list.splice(step, 1);
    else list[step] = withValue(list[step], rest, value);
    return list;
  }
  const map = { ...((root ?? {}) as Record<string, unknown>) };
  if (rest.length === 0 && value === undefined)
    return Object.fromEntries(Object.entries(map).filter(([key]) => key !== step));
  map[step] = withValue(map[step], rest, value);
  return map;
}

function pairAt(doc: Document, path: Path): Pair | undefined {
  const holder = path.length === 1 ? doc.contents : doc.getIn(path.slice(0, -1), true);
  return isMap(holder) ? holder.items.find((pair) => toJson(pair.key) === path.at(-1)) : undefined;
}

function put(text: string, doc: Document, path: Path, value: Value): string {
  const node = doc.getIn(path, true) as Node | null | undefined;
  const pair = typeof path.at(-1) === "string" ? pairAt(doc, path) : undefined;
  if (node && (isMap(node) || isSeq(node) || isScalar(node)) && node.range) return replaced(text, node, pair, value);
  if (pair) return after(text, pair, value);
  return added(text, doc, path, value);
}

/** A key that stands there without a value. */
function after(text: string, pair: Pair, value: Value): string {
  const stop = (pair.key as Node).range?.[1] ?? 0;
  const colon = text.indexOf(":", stop) + 1;
  return `${text.slice(0, colon)} ${flow(value)}${text.slice(colon)}`;
}

function replaced(text: string, node: Node, pair: Pair | undefined, value: Value): string {
  const [start, stop] = node.range ?? [0, 0];
  if (isSeq(node) && Array.isArray(value) && value.length > 0) {
    if (node.flow) {
      const known = node.items.map((item) => [toJson(item), text.slice(...rangeOf(item))] as const);
      return `${text.slice(0, start)}[${kept(known, value, flow).join(", ")}]${text.slice(stop)}`;
    }
    const spans = spansOf(text, node);
    const from = spans[0]?.[0] ?? start;
    const to = spans.at(-1)?.[1] ?? stop;
    const indent = " ".repeat(text.slice(from).search(/\S/));
    const own = " ".repeat((node.range?.[0] ?? 0) - lineStart(text, node.range?.[0] ?? 0));
    const known = node.items.map(
      (item, at) => [toJson(item), text.slice(spans[at]?.[0] ?? 0, spans[at]?.[1] ?? 0)] as const,
    );
    const lines = kept(known, value, (item) => `${own.length > 0 ? own : indent}- ${block(item, own.length + 2)}\n`);
    return text.slice(0, from) + lines.join("") + text.slice(to);
  }
  const blockStyle = !isScalar(node) ? !(node as { flow?: boolean }).flow : /^[|>]/.test(text.slice(start));
  if (!blockStyle) return text.slice(0, start) + flow(value) + text.slice(stop);
  if (!pair) throw new NotByForm(REFUSED);
  const colon = text.indexOf(":", (pair.key as Node).range?.[1] ?? 0) + 1;
  const tail = isScalar(node) ? stop : (spansOf(text, node).at(-1)?.[1] ?? stop);
  return `${text.slice(0, colon)} ${flow(value)}\n${text.slice(tail)}`;
}

const rangeOf = (item: unknown): [number, number] => {
  const range = (item as Node).range;
  return [range?.[0] ?? 0, range?.[1] ?? 0];
};

/** Of each value the text that stands for it already, with its quotes and comments; else a new one. */
function kept(known: (readonly [unknown, string])[], values: Value[], made: (value: Value) => string): string[] {
  const left = [...known];
  return values.map((value) => {
    const at = left.findIndex(([each]) => same(each, value));
    return at < 0 ? made(value) : (left.splice(at, 1)[0]?.[1] ?? made(value));
  });
}

function added(text: string, doc: Document, path: Path, value: Value): string {
  const key = path.at(-1) ?? "";
  const parent = path.slice(0, -1);
  const holder = parent.length === 0 ? doc.contents : (doc.getIn(parent, true) as Node | null | undefined);
  if (!holder || (isScalar(holder) && holder.value === null)) {
    if (parent.length === 0) return `${entry(key, value, 0)}${text}`;
    return put(text, doc, parent, typeof key === "number" ? [value] : { [key]: value });
  }
  if (!isMap(holder) && !isSeq(holder)) throw new NotByForm(REFUSED);
  if (holder.flow) {
    const stop = (holder.range?.[1] ?? 1) - 1;
    const bare = text.slice(0, stop).trimEnd();
    const inner = typeof key === "number" ? flow(value) : `${scalar(key)}: ${flow(value)}`;
    return `${bare}${holder.items.length > 0 ? ", " : ""}${inner}${text.slice(stop)}`;
  }
  const spans = spansOf(text, holder);
  const to = spans.at(-1)?.[1] ?? text.length;
  const at = holder.range?.[0] ?? 0;
  const indent = at - lineStart(text, at);
  const apart = spans.length > 1 && /\n[ \t]*\n$/.test(text.slice(0, spans[1]?.[0])) ? "\n" : "";
  const before = text.slice(0, to);
  const broken = before.endsWith("\n") || before === "" ? before : `${before}\n`;
  const beside = isMap(holder) ? (holder.items[0] as Pair | undefined)?.value : undefined;
  const below = isMap(beside) && !beside.flow;
  return `${broken}${apart}${entry(key, value, indent, below)}${text.slice(to)}`;
}

function taken(text: string, doc: Document, path: Path): string {
  const parent = path.slice(0, -1);
  const holder = parent.length === 0 ? doc.contents : (doc.getIn(parent, true) as Node | null);
  if (!isMap(holder) && !isSeq(holder)) return text;
  const at = isSeq(holder)
    ? Number(path.at(-1))
    : holder.items.findIndex((pair) => toJson((pair as Pair).key) === path.at(-1));
  const spans = spansOf(text, holder);
  const span = spans[at];
  if (!span) return text;
  if (holder.flow) {
    const next = spans[at + 1];
    if (next) return text.slice(0, span[0]) + text.slice(next[0]);
    return text.slice(0, spans[at - 1]?.[1] ?? span[0]) + text.slice(span[1]);
  }
  const gap = /^[ \t]*\n/.exec(text.slice(span[1]));
  const blankAbove = /\n[ \t]*\n$/.test(text.slice(0, span[0]));
  return text.slice(0, span[0]) + text.slice(span[1] + (blankAbove && gap ? gap[0].length : 0));
}
