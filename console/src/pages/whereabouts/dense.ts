import type { Schemas } from "../../api/client";
import { deploymentState, type Tone } from "../../design/states";
import { grouped } from "./labels";

type Row = Schemas["RowView"];
type Cell = Schemas["CellView"];

/** One word for a place, and what it says when one looks closer. */
export interface Word {
  word: string;
  tone: Tone | undefined;
  more: string;
}

/** What is to be known of a place first: what needs the reader, what moves, what is wrong, how far it is behind. */
export function wordOf(cell: Cell, before: string | undefined): Word {
  const more = [
    cell.behind > 0 && `${cell.behind} behind`,
    cell.marks?.held && `held: ${cell.marks.held}`,
    cell.trouble && `${cell.trouble.version} ${deploymentState(cell.trouble.status).word}`,
    ...cell.coming.map((each) => `${each.version} ${deploymentState(each.status).word}`),
    cell.kept?.reason,
  ]
    .filter(Boolean)
    .join("; ");
  const said = (word: string, tone: Word["tone"]): Word => ({ word, tone, more });
  const mine = cell.coming.find((each) => each.forYou);
  if (mine) return said(`${mine.version} waits for you`, "need");
  const [coming] = cell.coming;
  if (coming) return said(`${coming.version} ${deploymentState(coming.status).word}`, "ink");
  const marks = cell.marks;
  if (marks && marks.unhealthy > 0) return said("unhealthy", "bad");
  if (marks?.blocked) return said("blocked", "bad");
  if (cell.trouble) return said(deploymentState(cell.trouble.status).word, "bad");
  if (marks && marks.differing + marks.drifted > 0) return said("hosts differ", "warn");
  if (marks?.held) return said("held", "warn");
  if (!cell.version) return said("nothing yet", undefined);
  if (cell.behind > 0) return said(`${cell.behind} behind`, undefined);
  return said(before === undefined || before === cell.version ? "level" : "other", undefined);
}

/** Whether its places do not all have one version, or something is under way or wrong. */
export const differs = (row: Row): boolean =>
  row.stays.length > 0 ||
  row.cells.some((cell, at) => !["level", "nothing yet"].includes(wordOf(cell, row.cells[at - 1]?.version).word));

/** Whether something of it waits for the reader. */
export const isMine = (row: Row): boolean => row.cells.some((cell) => cell.coming.some((each) => each.forYou));

const count = (number: number, one: string, several: string) => `${number} ${number === 1 ? one : several}`;

/** A group in words: how many, how many of them are behind, how many wait for the reader. */
export function sumsOf(rows: Row[]): string {
  const behind = rows.filter((row) => row.cells.some((cell) => cell.behind > 0)).length;
  const moving = rows.filter((row) =>
    row.cells.some((cell) => cell.coming.some((each) => deploymentState(each.status).phase === "moving")),
  ).length;
  const mine = rows.filter(isMine).length;
  return [
    count(rows.length, "component", "components"),
    behind > 0 && `${behind} behind`,
    moving > 0 && `${moving} on the way`,
    mine > 0 && `${count(mine, "waits", "wait")} for you`,
  ]
    .filter(Boolean)
    .join(", ");
}

/** A line of the dense list: a group's head, or a component. */
export type Line = { head: string; value: string; folded: boolean } | { row: Row };

/** The lines that are shown: folded groups have their head alone. */
export function linesOf(rows: Row[], label: string, folded: ReadonlySet<string>): Line[] {
  return grouped(rows, label).flatMap((part): Line[] => [
    ...(label ? [{ head: sumsOf(part.rows), value: part.value, folded: folded.has(part.value) }] : []),
    ...(label && folded.has(part.value) ? [] : part.rows.map((row) => ({ row }))),
  ]);
}

/** The address at which these versions are made into a set, in their order. */
export const setOf = (versions: ReadonlyMap<string, string>) =>
  `/sets?${new URLSearchParams([...versions].map(([component, version]) => ["of", `${component}:${version}`]))}`;

/** Of which versions such an address speaks. */
export const membersOf = (params: URLSearchParams) =>
  params.getAll("of").flatMap((each) => {
    const [component = "", version = ""] = each.split(":");
    return component && version ? [{ component, version }] : [];
  });
