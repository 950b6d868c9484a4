import { TEXTS } from "./all";

/** Where the docs stand, as seen from here. */
export const ROOT = "../../../docs/";

/** Each page by its path in the docs, such as how-to/gate. */
export const pages = Object.keys(TEXTS).map((path) => path.slice(ROOT.length, -".md".length));

export const textOf = (page: string): string | undefined => TEXTS[`${ROOT}${page}.md`];
