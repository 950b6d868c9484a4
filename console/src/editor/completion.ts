import type { Completion, CompletionContext, CompletionResult } from "@codemirror/autocomplete";
import type { Schemas } from "../api/client";

/** The parts of a JSON Schema that completion reads. */
interface Node {
  $ref?: string;
  properties?: Record<string, Node>;
  additionalProperties?: Node | boolean;
  items?: Node;
  anyOf?: Node[];
  oneOf?: Node[];
  enum?: unknown[];
  const?: unknown;
  type?: string | string[];
  description?: string;
  required?: string[];
  $defs?: Record<string, Node>;
}

export type Schema = Node;
/** What a file can name; nothing, where nobody told. */
export type Known = Schemas["NamesView"];
export const NOTHING_KNOWN: Known = {
  components: [],
  environments: [],
  offers: [],
  artifacts: [],
  secrets: [],
  pieces: [],
};

/**
 * Where the cursor is: the keys that lead there, [] for an item of a list, and the keys that stand beside it already.
 */
export interface Place {
  path: string[];
  beside: string[];
}

interface Line {
  indent: number;
  item: boolean;
  key: string | undefined;
}

const read = (text: string): Line | undefined => {
  const match = /^(\s*)((?:- )*)([\w-]+)?(:)?/.exec(text);
  if (!match || text.trim() === "" || text.trim().startsWith("#")) return undefined;
  const dashes = match[2] ?? "";
  return {
    indent: (match[1] ?? "").length + dashes.length,
    item: dashes.length > 0,
    key: match[4] ? match[3] : undefined,
  };
};

/** Reads the place from the indentation of the lines above, as YAML means it; flow style is left alone. */
export function placeOf(lines: string[], at: number): Place {
  const here = lines[at] ?? "";
  const bare = /^(\s*)((?:- )*)/.exec(here);
  let indent = (bare?.[1] ?? "").length + (bare?.[2] ?? "").length;
  const path: string[] = (bare?.[2] ?? "").length > 0 ? ["[]"] : [];
  const own = indent;
  const beside: string[] = [];
  if (path.length > 0) indent = (bare?.[1] ?? "").length;
  let deepest = indent;
  for (let up = at - 1; up >= 0; up--) {
    const line = read(lines[up] ?? "");
    if (!line) continue;
    if (line.indent === own && line.key && deepest === indent && path.length === 0) beside.push(line.key);
    const start = line.item ? line.indent - 2 : line.indent;
    if (line.item && line.indent <= deepest && path[0] !== "[]" && line.indent === own) path.unshift("[]");
    if (start < deepest && (line.indent < deepest || line.item)) {
      if (line.key && line.indent < deepest) path.unshift(line.key);
      else if (line.key && path[0] !== "[]" && line.indent >= deepest) continue;
      deepest = start;
    }
    if (deepest === 0 && line.indent === 0) break;
  }
  const top = lines.slice(0, at).flatMap((text) => {
    const line = read(text);
    return line && line.indent === 0 && line.key ? [line.key] : [];
  });
  return { path, beside: path.length === 0 && own === 0 ? top : beside };
}

const resolve = (schema: Schema, node: Node | undefined): Node | undefined =>
  node?.$ref ? resolve(schema, schema.$defs?.[node.$ref.replace("#/$defs/", "")]) : node;

/** A part of the schema with its alternatives. */
export function openNode(schema: Schema, node: Node | undefined): Node[] {
  const found = resolve(schema, node);
  return found
    ? [found, ...[...(found.anyOf ?? []), ...(found.oneOf ?? [])].flatMap((each) => openNode(schema, each))]
    : [];
}

/** What may stand at a path: the alternatives of the schema there. */
export function nodesAt(schema: Schema, path: string[]): Node[] {
  let nodes: Node[] = [schema];
  const open = (node: Node | undefined) => openNode(schema, node);
  for (const step of path) {
    nodes = nodes.flatMap(open).flatMap((node) => {
      if (step === "[]") return node.items ? [node.items] : [];
      const named = node.properties?.[step];
      if (named) return [named];
      return typeof node.additionalProperties === "object" ? [node.additionalProperties] : [];
    });
  }
  return nodes.flatMap(open);
}

const indented = (text: string, by: string) => text.replaceAll("\n", `\n${by}`);

/** Stages ready-made; their blanks are filled from what the service has. */
export function readyStages(known: Known, stages: string[]): Completion[] {
  const last = stages.at(-1);
  const offer = known.offers[0];
  const wants = offer ? `\n  wants: [${offer}]` : "";
  const after = last ? `\n  after: [${last}]` : "";
  const make = (name: string, detail: string, body: string): Completion => ({
    label: name,
    detail,
    type: "class",
    apply: `${name}:${body}`,
    boost: 2,
  });
  const taken = known.artifacts.map(({ from, artifact }) =>
    make(
      `with-${from}`,
      `takes ${artifact} of ${from}`,
      `${after}\n  take:\n    - {from: ${from}, artifact: ${artifact}, into: lib}\n  steps: [./build.sh]`,
    ),
  );
  const seeing = known.secrets.map((secret) =>
    make(`publish`, `sees the secret ${secret}`, `${after}${wants}\n  secrets: [${secret}]\n  steps: [./publish.sh]`),
  );
  return [
    make("compile", "builds, and keeps an artifact", `${wants}\n  steps: [./build.sh]\n  keep: {app: out/app.jar}`),
    make(
      "unit-tests",
      "tests, and reports them",
      `${after}${wants}\n  steps: [./test.sh]\n  reports: {tests: build/tests/*.xml}`,
    ),
    make(
      "coverage",
      "reports which lines tests reach",
      `${after}${wants}\n  steps: [./coverage.sh]\n  reports: {coverage: build/coverage.xml}`,
    ),
    make(
      "lint",
      "looks for what could be better; may fail",
      `\n  after: []\n  steps: [./lint.sh]\n  reports: {findings: build/findings.sarif}\n  may-fail: true`,
    ),
    ...taken,
    ...seeing,
    make("ring", "only if something failed", `\n  if-failed: [${last ?? "compile"}]\n  steps: [./ring-the-bell.sh]`),
    make(
      "tidy",
      "whatever came of it",
      `\n  after-any: [${last ?? "compile"}]\n  may-fail: true\n  steps: [./tidy.sh]`,
    ),
  ];
}

/** Names that exist, for the value of a key. */
export function namesFor(key: string | undefined, known: Known, stages: string[]): string[] {
  switch (key) {
    case "after":
    case "after-any":
    case "if-failed":
      return stages;
    case "from":
    case "upstream":
    case "component":
      return known.components;
    case "live-in":
    case "in":
      return known.environments;
    case "wants":
      return known.offers;
    case "secrets":
      return known.secrets;
    case "artifact":
      return [...new Set(known.artifacts.map((each) => each.artifact))];
    case "of":
      return [...new Set(known.pieces.map((each) => each.of))];
    case "piece":
      return known.pieces.map((each) => each.piece.name);
    default:
      return [];
  }
}

/** Completes keys, values and whole stages at the cursor. */
export function complete(schema: Schema | undefined, known: Known) {
  return (context: CompletionContext): CompletionResult | null => {
    if (!schema) return null;
    const doc = context.state.doc;
    const line = doc.lineAt(context.pos);
    const lines = doc.toString().split("\n");
    const before = line.text.slice(0, context.pos - line.from);
    const stages = stageNames(lines);
    const word = /[\w-]*$/.exec(before)?.[0] ?? "";
    const from = context.pos - word.length;
    const place = placeOf(lines, line.number - 1);
    const value = /^\s*(?:- )*([\w-]+):\s+[[{]?(?:[\w-]+,\s*)*[\w-]*$/.exec(before);
    const inner = /\b(from|artifact|piece|of|version|live-in|in):\s*[\w-]*$/.exec(before);
    const key = inner?.[1] ?? value?.[1];
    if (key) return values(schema, place, key, known, stages, from);
    if (!context.explicit && word === "") return null;
    if (!/^\s*(?:- )*[\w-]*$/.test(before)) return null;
    if (place.path.length === 1 && place.path[0] === "stages") {
      const by = /^\s*/.exec(line.text)?.[0] ?? "  ";
      return {
        from,
        options: readyStages(known, stages).map((each) => ({ ...each, apply: indented(String(each.apply), by) })),
        validFor: /^[\w-]*$/,
      };
    }
    const nodes = nodesAt(schema, place.path);
    const options = nodes
      .flatMap((node) => Object.entries(node.properties ?? {}))
      .filter(([name]) => !place.beside.includes(name))
      .map(([name, node]): Completion => {
        const shape = nodesAt(schema, [...place.path, name])[0] ?? node;
        return { label: name, type: "property", info: node.description ?? shape.description, apply: `${name}: ` };
      });
    const names = namesFor(place.path.filter((step) => step !== "[]").at(-1), known, stages).map(
      (label): Completion => ({ label, type: "variable" }),
    );
    return { from, options: dedupe([...options, ...names]), validFor: /^[\w-]*$/ };
  };
}

function values(
  schema: Schema,
  place: Place,
  key: string,
  known: Known,
  stages: string[],
  from: number,
): CompletionResult {
  const nodes = nodesAt(schema, [...place.path, key]);
  const flags = nodes.some((node) => node.type === "boolean") ? ["true", "false"] : [];
  const all = [
    ...nodes.flatMap((node) => [...(node.enum ?? []), ...(node.const === undefined ? [] : [node.const])].map(String)),
    ...flags,
    ...namesFor(key, known, stages),
  ];
  return { from, options: dedupe(all.map((label): Completion => ({ label, type: "constant" }))), validFor: /^[\w-]*$/ };
}

const dedupe = (options: Completion[]) => [...new Map(options.map((option) => [option.label, option])).values()];

/** The names of the stages that the text has by now. */
export function stageNames(lines: string[]): string[] {
  const start = lines.findIndex((line) => /^stages:\s*$/.test(line));
  if (start < 0) return [];
  const names: string[] = [];
  for (const line of lines.slice(start + 1)) {
    if (/^\S/.test(line)) break;
    const name = /^ {2}([a-z0-9][a-z0-9-]*):/.exec(line)?.[1];
    if (name) names.push(name);
  }
  return names;
}
