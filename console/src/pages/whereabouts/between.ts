import type { Schemas } from "../../api/client";

type Past = Pick<Schemas["ThenView"], "component" | "environment" | "version">;

export interface Changed {
  component: string;
  environment: string;
  /** Undefined: nothing was live. */
  before: string | undefined;
  after: string | undefined;
}

const keyOf = ({ component, environment }: Past) => `${component} ${environment}`;

/** Where another version, or none, was live at the second moment; in the order of the first, then of what is new. */
export function between(before: Past[], after: Past[]): Changed[] {
  const later = new Map(after.map((place) => [keyOf(place), place]));
  const earlier = new Set(before.map(keyOf));
  return [
    ...before.map((place) => ({ ...place, before: place.version, after: later.get(keyOf(place))?.version })),
    ...after
      .filter((place) => !earlier.has(keyOf(place)))
      .map((place) => ({ ...place, before: undefined, after: place.version })),
  ]
    .filter((place) => place.before !== place.after)
    .map(({ component, environment, before: was, after: is }) => ({ component, environment, before: was, after: is }));
}
