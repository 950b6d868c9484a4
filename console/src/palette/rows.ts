import type { Schemas } from "../api/client";
import type { Section } from "../help/search";

export type Found = Schemas["NamedThing"];

/** A row of the palette: something, an act on it, or a page. */
export interface Row {
  key: string;
  /** What stands before it, in a word. */
  kind: string;
  name: string;
  sentence: string;
  to: string;
}

const seg = encodeURIComponent;

/** Where a thing is looked at. */
export function pathOf(found: Found): string {
  const component = seg(found.component ?? "");
  switch (found.thing) {
    case "component":
      return `/components/${component}`;
    case "environment":
      return `/environments/${seg(found.environment ?? "")}`;
    case "version":
    case "artifact":
      return `/versions/${component}/${seg(found.version ?? "")}`;
    case "run":
    case "commit":
      return `/runs/${component}/${found.number}`;
    case "deployment":
      return `/deployments/${found.number}`;
    case "package":
      return `/packages?name=${seg(found.name)}`;
    case "account":
      return `/settings/accounts/${seg(found.name)}`;
  }
}

export const thing = (found: Found): Row => ({
  key: `${found.thing} ${found.name} ${found.sentence}`,
  kind: found.thing,
  name: found.name,
  sentence: found.sentence,
  to: pathOf(found),
});

/** What can be done to a thing from here; what it would do is shown before it is done. */
export function actsOn(
  found: Found,
  environments: string[],
  may: (action: string, where: { component?: string; environment?: string }) => boolean,
): Row[] {
  const act = (name: string, to: string, sentence = ""): Row => ({ key: `act ${to}`, kind: "act", name, sentence, to });
  const component = seg(found.component ?? "");
  const number = seg(found.version ?? "");
  switch (found.thing) {
    case "component":
      return [
        ...environments.map((each) =>
          act(`${found.name} in ${each}`, `/places/${component}/${seg(each)}`, "its place"),
        ),
        act(`Versions of ${found.name} compared`, `/components/${component}/compare`),
        act(`Deployments of ${found.name}`, `/deployments?component=${component}`),
        act(`Pipeline file of ${found.name}`, `/components/${component}/pipeline`),
        act(`Settings of ${found.name}`, `/settings/components/${component}`),
        act(`Variables and secrets of ${found.name}`, `/settings/values?component=${component}`),
      ];
    case "version":
    case "artifact":
      return environments
        .filter((each) => may("PROMOTE", { component: found.component, environment: each }))
        .map((each) =>
          act(
            `Promote ${found.component} ${found.version} to ${each}`,
            `/versions/${component}/${number}?promote=${component}:${number}:${seg(each)}`,
            "shows what would be done first",
          ),
        );
    case "environment":
      return [
        act(`Deployments into ${found.name}`, `/deployments?environment=${seg(found.name)}`),
        act(`Rules of ${found.name} as a file`, `/environments-file?environment=${seg(found.name)}`),
        act("Environments", "/settings/environments", "settings"),
      ];
    case "deployment":
      return [
        act(
          `${found.component} in ${found.environment}`,
          `/places/${component}/${seg(found.environment ?? "")}`,
          "its place: roll back, hold, repair",
        ),
      ];
    default:
      return [];
  }
}

const PAGES: [string, string, string][] = [
  ["Whereabouts", "/", "which version is where"],
  ["Waiting", "/waiting", "what waits for you"],
  ["Components", "/components", "their newest runs and versions"],
  ["Deployments", "/deployments", "all of them, the newest first"],
  ["Runs", "/runs", "all of them, the newest first"],
  ["Versions", "/versions", "all of them, the newest first"],
  ["Events", "/events", "what happened, and what it started"],
  ["History", "/history", "what happened to what is live, over time"],
  ["Pace", "/pace", "how fast and how safely versions move"],
  ["Audit trail", "/audit", "who did what, and the proof"],
  ["What is this file?", "/origins", "of which version it is, by its digest"],
  ["Who has this part?", "/packages", "which live versions contain a package"],
  ["Sets", "/sets", "versions that go together"],
  ["Chain", "/chain", "who starts whom"],
  ["Bring in a component", "/bring-in", "from its repository"],
  ["Environments file", "/environments-file", "rules and places"],
  ["Your password and tokens", "/settings/yours", "settings"],
  ["Variables and secrets", "/settings/values", "settings"],
  ["Agents", "/settings/agents", "settings: enrol, drain"],
  ["Hosts", "/settings/hosts", "settings: maintenance"],
  ["Accounts", "/settings/accounts", "settings"],
  ["Groups", "/settings/groups", "settings"],
  ["Previews", "/settings/previews", "settings"],
  ["Receivers of events", "/settings/receivers", "settings"],
  ["The service", "/settings/service", "settings: clock, key, audit trail"],
  ["Retired", "/settings/retired", "settings: bring back what is out of use"],
  ["The docs", "/docs", "read and searched"],
  ["The API", "/api", "every operation"],
];

/** The pages that a text names, or all of them. */
export function pagesOf(text: string): Row[] {
  const sought = text.trim().toLowerCase();
  return PAGES.filter(([name]) => name.toLowerCase().includes(sought)).map(([name, to, sentence]) => ({
    key: `page ${to}`,
    kind: "page",
    name,
    sentence,
    to,
  }));
}

/** A part of the docs. */
export const helpRow = ({ page, slug, heading, title }: Section): Row => ({
  key: `help ${page}#${slug}`,
  kind: "help",
  name: heading,
  sentence: heading === title ? "" : title,
  to: `/docs/${page}#${slug}`,
});

const MOST = 9;

/** At most nine rows: things first, then acts on the most likely one, then pages; each kind has its share. */
export function rowsOf(things: Row[], acts: Row[], pages: Row[]): Row[] {
  const least = [Math.min(things.length, 5), Math.min(acts.length, 2), Math.min(pages.length, 2)];
  let left = MOST - least.reduce((sum, each) => sum + each, 0);
  const take = [things, acts, pages].map((rows, at) => {
    const more = Math.min(left, rows.length - (least[at] ?? 0));
    left -= more;
    return rows.slice(0, (least[at] ?? 0) + more);
  });
  return take.flat();
}

const KEY = "paseo.looked-at";

/** The pages that were looked at last on this machine, the newest first. */
export function lookedAt(storage: Pick<Storage, "getItem">): Row[] {
  try {
    const rows = JSON.parse(storage.getItem(KEY) ?? "[]") as { to: string; name: string }[];
    return rows.map(({ to, name }) => ({ key: `last ${to}`, kind: "last", name, sentence: "looked at lately", to }));
  } catch {
    return [];
  }
}

export function look(storage: Pick<Storage, "getItem" | "setItem">, to: string, name: string) {
  const others = lookedAt(storage).filter((row) => row.to !== to);
  const kept = [{ to, name }, ...others.map((row) => ({ to: row.to, name: row.name }))].slice(0, MOST);
  storage.setItem(KEY, JSON.stringify(kept));
}
