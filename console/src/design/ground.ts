import type { Schemas } from "../api/client";
import { deploymentState } from "./states";

/** So many environments are told of one by one; of more, those that need to be. */
const MOST_NAMED = 6;

/** What each environment is doing, in its order: something that moves there, or whether it is open. */
export function doingIn(where: Schemas["WhereaboutsView"]): [string, string][] {
  const moving = new Map<string, string>();
  for (const row of where.rows) {
    for (const cell of row.cells) {
      if (moving.has(cell.environment)) continue;
      const coming = cell.coming.find(
        (each) => each.status === "queued" || deploymentState(each.status).phase === "moving",
      );
      if (coming) moving.set(cell.environment, `${row.component} ${coming.version} ${coming.status}`);
    }
  }
  return where.environments.map((each) => [each.name, moving.get(each.name) ?? (each.closed ? "closed" : "open")]);
}

/** What of it there is room for: of many environments those alone where something moves or is closed, and a sum. */
export function told(doing: [string, string][]): [string, string][] {
  if (doing.length <= MOST_NAMED) return doing;
  const unusual = doing.filter(([, words]) => words !== "open");
  const open = doing.length - unusual.length;
  if (unusual.length === 0) return [[`${open} environments`, "open"]];
  const named = unusual.slice(0, MOST_NAMED - 1);
  const more = unusual.length - named.length;
  return [
    ...named,
    ...(more > 0 ? [[`${more} more`, "closed or moving"] as [string, string]] : []),
    ...(open > 0 ? [[`${open} ${open === 1 ? "other" : "others"}`, "open"] as [string, string]] : []),
  ];
}
