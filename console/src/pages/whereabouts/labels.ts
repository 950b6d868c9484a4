import type { Schemas } from "../../api/client";

type Row = Pick<Schemas["RowView"], "component" | "labels">;

/** Whether a component has this in its name, or in a label's value, or is labelled `name=value`. */
export function matches(row: Row, text: string) {
  return (
    row.component.includes(text) ||
    Object.entries(row.labels).some(([name, value]) => `${name}=${value}`.includes(text))
  );
}

export const labelNames = (rows: Row[]) => [...new Set(rows.flatMap((row) => Object.keys(row.labels)))].sort();

/**
 * The rows by the value of a label, in the order of the values; those without it last. One group where no label is
 * named.
 */
export function grouped<R extends Row>(rows: R[], label: string): { value: string; rows: R[] }[] {
  if (!label) return [{ value: "", rows }];
  const groups = new Map<string, R[]>();
  for (const row of rows) {
    const value = row.labels[label] ?? "";
    groups.set(value, [...(groups.get(value) ?? []), row]);
  }
  return [...groups]
    .map(([value, members]) => ({ value, rows: members }))
    .sort((a, b) => Number(a.value === "") - Number(b.value === "") || a.value.localeCompare(b.value));
}
