import { openNode, type Schema } from "../completion";

/** How a part of the schema is asked in a form. */
export type Kind =
  | { kind: "choice"; of: string[] }
  | { kind: "flag" }
  | { kind: "text"; condition: boolean }
  | { kind: "list"; texts: boolean; mapping: Schema | undefined }
  | { kind: "pairs" }
  | { kind: "named"; of: Schema }
  | { kind: "group"; properties: [string, Schema][]; text: boolean }
  | { kind: "elsewhere" };

const isObject = (node: Schema) => node.type === "object" && node.properties !== undefined;
const types = (node: Schema) => [node.type ?? []].flat();
const isText = (node: Schema) => types(node).some((type) => ["string", "number", "integer"].includes(type));

/** What a form asks for a part of the schema; what it cannot ask is left to the text. */
export function kindOf(schema: Schema, node: Schema): Kind {
  const open = openNode(schema, node);
  const list = open.find((each) => types(each).includes("array"));
  if (list) {
    const items = openNode(schema, list.items);
    return { kind: "list", texts: items.some(isText), mapping: items.find(isObject) };
  }
  const group = open.find(isObject);
  const choice = open.find((each) => each.enum !== undefined);
  if (choice && !group) return { kind: "choice", of: (choice.enum ?? []).map(String) };
  if (open.some((each) => each.type === "boolean")) return { kind: "flag" };
  if (group && !choice) {
    const properties = Object.entries(group.properties ?? {}).filter(([name]) => name !== "like");
    return { kind: "group", properties, text: open.some(isText) };
  }
  if (open.some((each) => each.type === "object" && isPlain(schema, each))) return { kind: "pairs" };
  const of = open.find((each) => each.type === "object" && typeof each.additionalProperties === "object");
  if (of && typeof of.additionalProperties === "object") return { kind: "named", of: of.additionalProperties };
  if (open.some(isText)) return { kind: "text", condition: node.$ref === "#/$defs/condition" };
  return { kind: "elsewhere" };
}

const isPlain = (schema: Schema, node: Schema) =>
  typeof node.additionalProperties === "object" && openNode(schema, node.additionalProperties).some(isText);

export const describe = (schema: Schema, node: Schema): string =>
  node.description ?? openNode(schema, node).find((each) => each.description)?.description ?? "";

/** Whether names may stand there with a text each, as one of several ways to write it. */
export const takesPairs = (schema: Schema, node: Schema): boolean =>
  openNode(schema, node).some((each) => each.type === "object" && isPlain(schema, each));

/** The alternative of a list's items that a mapping is one of, by its keys. */
export function alternativeOf(schema: Schema, node: Schema | undefined, value: unknown): Schema | undefined {
  const keys = Object.keys((value ?? {}) as object);
  return openNode(schema, node)
    .filter(isObject)
    .find((each) => (each.required ?? []).every((key) => keys.includes(key)));
}
