import type { Schemas } from "../../api/client";
import { matches } from "../whereabouts/labels";

type Row = Schemas["RowView"];
type Run = Schemas["RunSummary"];

/** A component and the newest run of its main branch. */
export interface Line {
  row: Row;
  run: Run | undefined;
}

export type Sort = "name" | "newest" | "trouble";

export const SORTS: [Sort, string][] = [
  ["name", "by name"],
  ["newest", "newest run first"],
  ["trouble", "failed first"],
];

interface Asked {
  text: string;
  status: string;
  sort: Sort;
}

const RANK: Record<string, number> = { failed: 0, warned: 1, cancelled: 2, running: 3, waiting: 3 };

const ORDERS: Record<Sort, (a: Line, b: Line) => number> = {
  name: () => 0,
  newest: (a, b) => (b.run?.createdAt ?? "").localeCompare(a.run?.createdAt ?? ""),
  trouble: (a, b) => (RANK[a.run?.status ?? ""] ?? 4) - (RANK[b.run?.status ?? ""] ?? 4),
};

/** Those that are asked for, in their order; within it, by name. */
export function sorted(rows: Row[], newest: ReadonlyMap<string, Run>, { text, status, sort }: Asked): Line[] {
  return rows
    .filter((row) => matches(row, text))
    .map((row) => ({ row, run: newest.get(row.component) }))
    .filter(({ run }) => !status || run?.status === status)
    .sort((a, b) => (ORDERS[sort] ?? ORDERS.name)(a, b) || a.row.component.localeCompare(b.row.component));
}

/** An author without the address, as git writes it. */
export const nameOf = (author: string) => author.replace(/ *<[^>]*>$/, "") || author;
