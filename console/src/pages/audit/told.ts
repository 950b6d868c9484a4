import type { Schemas } from "../../api/client";

type Written = Schemas["WrittenView"];

/** What is to be seen at once of an entry: what went past a rule, and who stood in for whom. */
export function marks({ what, details }: Written): string[] {
  const found = details.emergency ? ["emergency"] : [];
  if (details["past the hold"]) found.push("past the hold");
  if (details["in place of"]) found.push(`in place of ${details["in place of"]}`);
  if (what.startsWith("loosen") || details.loosening !== undefined) found.push("loosens rules");
  return found;
}

/** Where in the console it is looked at; undefined where nothing is known to be there. */
export function pathOf({ subject, where, details }: Written): string | undefined {
  if (/^\d+$/.test(details.deployment ?? "")) return `/deployments/${details.deployment}`;
  if (/^\d+$/.test(details.passage ?? "")) return `/passages/${details.passage}`;
  const run = /^([a-z][a-z0-9-]*)#(\d+)$/.exec(subject);
  if (run) return `/runs/${run[1]}/${run[2]}`;
  const version = /^([a-z][a-z0-9-]*) (\d\S*)$/.exec(subject);
  if (version) return `/versions/${version[1]}/${encodeURIComponent(version[2] ?? "")}`;
  return where && subject !== where && /^[a-z][a-z0-9-]*$/.test(subject) ? `/places/${subject}/${where}` : undefined;
}

/** What it holds beside the columns of the list, by its names; digests of states are for programs. */
export const others = ({ details }: Written): [name: string, value: string][] =>
  Object.entries(details).filter(([name, value]) => value !== "" && !name.startsWith("state of "));
