/** What a form writes. */
export type Value = string | number | boolean | Value[] | { [key: string]: Value };

const WORD = /^[A-Za-z0-9_./*@+-][A-Za-z0-9_./*@+\- ()=$!?&|<>~%^]*$/;

const OTHER = /^(true|false|null|yes|no|on|off|~|[-+.]?[0-9][0-9_.eExXa-fA-F:+-]*|[-.*&!%@|>].*|- .*)$/i;

/** A text as YAML has it in any place. */
export function scalar(value: string | number | boolean): string {
  if (typeof value !== "string") return String(value);
  const plain = WORD.test(value) && !(OTHER.test(value) && !/^\.?\//.test(value)) && !value.endsWith(" ");
  return plain && !value.includes(" #") ? value : JSON.stringify(value);
}

/** A value on one line. */
export function flow(value: Value): string {
  if (Array.isArray(value)) return `[${value.map(flow).join(", ")}]`;
  if (typeof value === "object")
    return `{${Object.entries(value)
      .map(([key, each]) => `${scalar(key)}: ${flow(each)}`)
      .join(", ")}}`;
  return scalar(value);
}

/** A value in a list in block style; a text of several lines stands as it is. */
export function block(value: Value, indent: number): string {
  if (typeof value === "string" && value.includes("\n") && !/^\s|\t/.test(value)) {
    const body = value.replace(/\n+$/, "").replaceAll("\n", `\n${" ".repeat(indent)}`);
    return `|${value.endsWith("\n") ? "" : "-"}\n${" ".repeat(indent)}${body}`;
  }
  return flow(value);
}

/** An entry of a mapping or a list in block style; longer mappings, and those beside such, stand below their key. */
export function entry(key: string | number, value: Value, indent: number, below = false): string {
  const pad = " ".repeat(indent);
  if (typeof key === "number") return `${pad}- ${block(value, indent + 2)}\n`;
  if (typeof value === "object" && !Array.isArray(value) && Object.keys(value).length > (below ? 0 : 1)) {
    return `${pad}${scalar(key)}:\n${Object.entries(value)
      .map(([inner, each]) => entry(inner, each, indent + 2))
      .join("")}`;
  }
  return `${pad}${scalar(key)}: ${flow(value)}\n`;
}
