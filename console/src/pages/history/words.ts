import type { Schemas } from "../../api/client";

type Happened = Schemas["HappenedView"];

/** What happened, as it is said after the name of what it happened to. */
export function said({ what, version, status, host }: Happened): string {
  switch (what) {
    case "went-live":
      return `${version} went live`;
    case "live-again":
      return `${version} is live again`;
    case "ended":
      return `${version} ${status}`;
    case "held":
      return "held";
    case "let-go":
      return "hold lifted";
    case "closed":
      return "closed";
    case "opened":
      return "opened again";
    case "unhealthy":
      return `${host} is unhealthy`;
    case "drifted":
      return `${host} has other files than were installed`;
  }
}
