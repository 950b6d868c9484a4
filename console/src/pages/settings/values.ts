import type { Schemas } from "../../api/client";

type Revision = Schemas["RevisionView"];
type Kept = Schemas["SetSecret"];

/** A name in a place: its value there, and where a host has another. */
export interface Held {
  value: string | undefined;
  hosts: { host: string; value: string }[];
}

/** The variables of a place, by name. */
export function variablesOf(revision: Revision | undefined): Record<string, Held> {
  const held: Record<string, Held> = {};
  const at = (name: string) => (held[name] ??= { value: undefined, hosts: [] });
  Object.entries(revision?.settings.variables ?? {}).forEach(([name, value]) => (at(name).value = value));
  Object.entries(revision?.settings.hosts ?? {}).forEach(([host, own]) =>
    Object.entries(own.variables).forEach(([name, value]) => at(name).hosts.push({ host, value })),
  );
  return held;
}

/** The secret of a name that holds in a place: the nearest, and those that hosts of it have. */
export function secretIn(all: Kept[], name: string, component: string, environment: string) {
  const named = all.filter((each) => each.name === name);
  const of = (own: boolean, there: boolean) =>
    named.find(
      (each) =>
        each.host === undefined &&
        each.component === (own ? component : undefined) &&
        each.environment === (there ? environment : undefined),
    );
  return {
    nearest: of(true, true) ?? of(true, false) ?? of(false, true) ?? of(false, false),
    hosts: named.filter((each) => each.host && each.component === component && each.environment === environment),
  };
}

/** Whether a secret was set for just this place, and not for more. */
export const isOwn = (kept: Kept) => kept.component !== undefined && kept.environment !== undefined;

/** Where a secret holds, in words. */
export const reachOf = (kept: Kept) =>
  [kept.component ?? "every component", kept.environment ?? "everywhere"].join(", ");

const flat = (revision: Revision | undefined): Map<string, string> => {
  const settings = revision?.settings;
  const all = new Map<string, string>();
  if (settings?.url) all.set("address", settings.url);
  Object.entries(settings?.variables ?? {}).forEach(([name, value]) => all.set(name, value));
  Object.entries(settings?.hosts ?? {}).forEach(([host, own]) => {
    all.set(`host ${host}`, "is there");
    if (own.url) all.set(`address on ${host}`, own.url);
    Object.entries(own.variables).forEach(([name, value]) => all.set(`${name} on ${host}`, value));
  });
  return all;
};

/** The revision that held at a moment, of all of them, the newest first. */
const heldAt = (revisions: Revision[], moment: Date) => revisions.find((each) => new Date(each.at) <= moment);

/** What is other at a later moment than at an earlier one, a line each; of all revisions, the newest first. */
export function changedBetween(revisions: Revision[], earlier: Date, later: Date): string[] {
  const is = heldAt(revisions, later);
  return is ? changed(heldAt(revisions, earlier), is) : [];
}

/** The secrets that hold in a place of a component and got their newest value between two moments. */
export const setBetween = (all: Kept[], component: string, environment: string, earlier: Date, later: Date) =>
  all.filter(
    (each) =>
      (each.component === undefined || each.component === component) &&
      (each.environment === undefined || each.environment === environment) &&
      new Date(each.at) > earlier &&
      new Date(each.at) <= later,
  );

/** What a revision changed of the one before it, a line each. */
export function changed(before: Revision | undefined, after: Revision): string[] {
  const [was, is] = [flat(before), flat(after)];
  const names = [...new Set([...was.keys(), ...is.keys()])].sort();
  return names
    .filter((name) => was.get(name) !== is.get(name))
    .map((name) => `${name}: ${was.get(name) ?? "nothing"} → ${is.get(name) ?? "nothing"}`);
}
