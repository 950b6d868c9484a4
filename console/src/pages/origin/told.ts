import type { Schemas } from "../../api/client";

type Stay = Schemas["LiveStayView"];

/** The hosts that have it; of a time that is over, those that had it. */
export const hostsOf = ({ hosts, until }: Stay) => [
  ...new Set(hosts.filter((each) => until || !each.until).map((each) => each.host)),
];

/** Who decided what, in a sentence. */
export const decisionsOf = ({ decisions }: Stay) =>
  [
    ...new Set(
      decisions.map(
        ({ by, yes, inPlaceOf }) => `${yes ? "" : "rejected by "}${by}${inPlaceOf ? ` for ${inPlaceOf}` : ""}`,
      ),
    ),
  ].join(", ") || "no person was asked";
