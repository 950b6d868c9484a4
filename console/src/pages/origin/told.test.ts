import { expect, it } from "vitest";
import { decisionsOf, hostsOf } from "./told";

const from = "2026-05-04T12:00:00Z";
const stay = {
  environment: "staging",
  deployment: 7,
  from,
  hosts: [
    { host: "stage-1", from, until: from },
    { host: "stage-1", from },
    { host: "stage-2", from, until: from },
  ],
  decisions: [
    { by: "approver-1", yes: true, at: from },
    { by: "approver-2", inPlaceOf: "admin", yes: true, at: from },
    { by: "auditor", yes: false, at: from },
  ],
};

it("names each host once, and of what is live only those that have it", () => {
  expect(hostsOf(stay)).toEqual(["stage-1"]);
  expect(hostsOf({ ...stay, until: from })).toEqual(["stage-1", "stage-2"]);
});

it("says who decided what, and in whose place", () => {
  expect(decisionsOf(stay)).toBe("approver-1, approver-2 for admin, rejected by auditor");
  expect(decisionsOf({ ...stay, decisions: [] })).toBe("no person was asked");
});
