export const FACETS = ["component", "environment", "status"] as const;
export type Facet = (typeof FACETS)[number];
export type Facets = Partial<Record<Facet, string>>;

/** The states that a deployment is looked for in, as the API has them. */
export const STATUSES = [
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

/** What an address asks for; what it does not say is not asked. */
export function asked(params: URLSearchParams): Facets {
  return Object.fromEntries(
    FACETS.flatMap((facet) => {
      const value = params.get(facet);
      return value ? [[facet, value]] : [];
    }),
  );
}

/** The same in words. */
export function told({ component, environment, status }: Facets): string {
  const which = status ? `those that are ${status}` : "all of them";
  return [which, component && `of ${component}`, environment && `into ${environment}`].filter(Boolean).join(" ");
}
