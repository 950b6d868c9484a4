import { expect, it } from "vitest";
import type { Schemas } from "../../api/client";
import { changed, changedBetween, setBetween, isOwn, reachOf, secretIn, variablesOf } from "./values";

type Revision = Schemas["RevisionView"];

const revision = (variables: Record<string, string>, hosts: Record<string, Record<string, string>> = {}): Revision => ({
  revision: 1,
  by: "admin",
  at: "2026-11-03T08:00:00Z",
  settings: {
    format: 1,
    variables,
    secrets: [],
    hosts: Object.fromEntries(Object.entries(hosts).map(([host, own]) => [host, { variables: own }])),
  } as unknown as Revision["settings"],
});

const kept = (component?: string, environment?: string, host?: string): Schemas["SetSecret"] => ({
  name: "DATA_KEY",
  component,
  environment,
  host,
  revisions: 1,
  at: "2026-11-03T08:00:00Z",
});

it("has a name with what hosts have of their own", () => {
  expect(variablesOf(revision({ LOG: "warn" }, { "ridge-hut": { LOG: "info", AREA: "ridge" } }))).toEqual({
    LOG: { value: "warn", hosts: [{ host: "ridge-hut", value: "info" }] },
    AREA: { value: undefined, hosts: [{ host: "ridge-hut", value: "ridge" }] },
  });
  expect(variablesOf(undefined)).toEqual({});
});

it.each([
  ["of the place", [kept(), kept("a"), kept(undefined, "test"), kept("a", "test")], "a, test"],
  ["of the component", [kept(), kept("a"), kept(undefined, "test")], "a, everywhere"],
  ["of the environment", [kept(), kept("b"), kept(undefined, "test")], "every component, test"],
  ["of everything", [kept(), kept("b", "test"), kept("a", "production")], "every component, everywhere"],
])("takes the nearest secret: %s", (_, all, reach) => {
  const found = secretIn(all, "DATA_KEY", "a", "test").nearest;
  expect(found && reachOf(found)).toBe(reach);
  expect(found && isOwn(found)).toBe(reach === "a, test");
});

it("names the hosts that have a secret of their own", () => {
  const all = [kept("a", "test", "ridge-hut"), kept("b", "test", "ridge-hut"), kept("a", "test")];
  expect(secretIn(all, "DATA_KEY", "a", "test").hosts.map((each) => each.component)).toEqual(["a"]);
});

it("says what a revision changed", () => {
  const before = revision({ LOG: "warn", GONE: "1" }, { "ridge-hut": {} });
  const after = revision({ LOG: "info", NEW: "2" }, { "ridge-hut": { LOG: "debug" } });
  expect(changed(before, after)).toEqual([
    "GONE: 1 → nothing",
    "LOG: warn → info",
    "LOG on ridge-hut: nothing → debug",
    "NEW: nothing → 2",
  ]);
  expect(changed(undefined, revision({}))).toEqual([]);
});

it("says what changed between two moments, also from before there was anything", () => {
  const at = (hour: string) => new Date(`2026-11-03T${hour}:00:00Z`);
  const revisions = [
    { ...revision({ LOG: "debug" }), at: "2026-11-03T12:00:00Z" },
    { ...revision({ LOG: "info" }), at: "2026-11-03T10:00:00Z" },
    { ...revision({ LOG: "warn" }), at: "2026-11-03T08:00:00Z" },
  ];
  expect(changedBetween(revisions, at("08"), at("11"))).toEqual(["LOG: warn → info"]);
  expect(changedBetween(revisions, at("09"), at("13"))).toEqual(["LOG: warn → debug"]);
  expect(changedBetween(revisions, at("07"), at("09"))).toEqual(["LOG: nothing → warn"]);
  expect(changedBetween(revisions, at("06"), at("07"))).toEqual([]);
  expect(changedBetween(revisions, at("10"), at("11"))).toEqual([]);
});

it("says which secrets that hold there were set between two moments", () => {
  const all = [kept(), kept("a", "test"), kept("b"), kept("a", "production")];
  const set = (from: string, to: string) =>
    setBetween(all, "a", "test", new Date(from), new Date(to)).map((each) => reachOf(each));
  expect(set("2026-11-03T07:59:59Z", "2026-11-03T08:00:00Z")).toEqual(["every component, everywhere", "a, test"]);
  expect(set("2026-11-03T08:00:00Z", "2026-11-04T08:00:00Z")).toEqual([]);
});
