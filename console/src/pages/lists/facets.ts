/** What a list is asked for; each stands in the page's address. */
export type Facet =
  | "component"
  | "environment"
  | "status"
  | "branch"
  | "label"
  | "by"
  | "author"
  | "blocked"
  | "kind"
  | "started"
  | "what"
  | "version"
  | "deployment"
  | "text"
  | "host"
  | "since"
  | "first";
export type Facets = Partial<Record<Facet, string>>;

/** The states that a deployment is looked for in, as the API has them. */
export const DEPLOYMENT_STATUSES = [
  "waiting",
  "queued",
  "deploying",
  "checking",
  "live",
  "replaced",
  "undoing",
  "undone",
  "removed",
  "stopped",
  "failed",
  "rejected",
  "expired",
  "withdrawn",
  "overtaken",
];

/** The states that a run is looked for in, as the API has them. */
export const RUN_STATUSES = ["waiting", "running", "cancelling", "passed", "warned", "failed", "cancelled"];

/** The kinds of what happens, as the API has them, and as they are said. */
export const KIND_WORDS: Record<string, string> = {
  push: "pushes",
  tag: "tags",
  clock: "clocks",
  run: "runs that passed",
  live: "versions that went live",
  arrival: "versions that arrived",
};

/** How far back a list goes, by the word of it in the address. */
export const SINCE: Record<string, { hours: number; words: string }> = {
  "1h": { hours: 1, words: "in the last hour" },
  "24h": { hours: 24, words: "in the last 24 hours" },
  "7d": { hours: 7 * 24, words: "in the last 7 days" },
  "30d": { hours: 30 * 24, words: "in the last 30 days" },
  "90d": { hours: 90 * 24, words: "in the last 90 days" },
  "365d": { hours: 365 * 24, words: "in the last 365 days" },
};

const HOUR = 3_600_000;
const MINUTE = 60_000;

/** The moment from which on a list is asked for; the same for a minute, so that it is not asked anew all the time. */
export const sinceOf = (word: string | undefined, now: number): string | undefined => {
  const far = SINCE[word ?? ""];
  return far && new Date(Math.floor((now - far.hours * HOUR) / MINUTE) * MINUTE).toISOString();
};

/** Facets of which only some values mean anything. */
const FEW: Partial<Record<Facet, string[]>> = { since: Object.keys(SINCE), first: ["oldest"] };

/** What an address asks of a list that knows these; what it does not say is not asked. */
export function asked(params: URLSearchParams, of: readonly Facet[]): Facets {
  return Object.fromEntries(
    of.flatMap((facet) => {
      const value = params.get(facet);
      return value && (FEW[facet]?.includes(value) ?? true) ? [[facet, value]] : [];
    }),
  );
}

const WORDS: Record<Facet, (value: string) => string> = {
  status: (value) => `${value}`,
  blocked: (value) => (value === "true" ? "blocked" : "not blocked"),
  component: (value) => `of ${value}`,
  label: (value) => `with the label ${value}`,
  branch: (value) => `of the branch ${value}`,
  environment: (value) => `in ${value}`,
  by: (value) => `asked for by ${value}`,
  author: (value) => `by ${value}`,
  kind: (value) => KIND_WORDS[value] ?? value,
  started: (value) => (value === "true" ? "that started a run" : "that started nothing"),
  what: (value) => `that say ${value}`,
  version: (value) => `of the version ${value}`,
  deployment: (value) => `of deployment ${value}`,
  host: (value) => `on ${value}`,
  text: (value) => `with “${value}” in them`,
  since: (value) => SINCE[value]?.words ?? "",
  first: (value) => `the ${value} first`,
};

/** Whether it asks for some only, whatever their order. */
export const narrows = (facets: Facets) => Object.keys(facets).some((facet) => facet !== "first");

/** The page that begins here, in the order that is asked for. */
export const pageOf = (first: string | undefined, from: number | undefined) =>
  first === "oldest" ? { after: from ?? 0 } : { before: from };

/** The same in words, in the order in which they are said. */
export function told(facets: Facets): string {
  const said = (Object.keys(WORDS) as Facet[]).flatMap((facet) => {
    const value = facets[facet];
    return value ? [WORDS[facet](value)] : [];
  });
  return [narrows(facets) ? "those" : "all of them", said.join(", ")]
    .filter(Boolean)
    .join(narrows(facets) ? " " : ", ");
}
