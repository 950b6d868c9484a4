import { expect, it } from "vitest";
import { actsOn, look, lookedAt, pagesOf, pathOf, rowsOf, type Found, type Row } from "./rows";

const found = (thing: Found["thing"], more: Partial<Found> = {}): Found => ({
  thing,
  name: "x",
  sentence: "",
  component: "daylight-api",
  version: "1.4.7",
  environment: "test",
  number: 41,
  ...more,
});

it.each([
  ["component", "/components/daylight-api"],
  ["environment", "/environments/test"],
  ["version", "/versions/daylight-api/1.4.7"],
  ["artifact", "/versions/daylight-api/1.4.7"],
  ["run", "/runs/daylight-api/41"],
  ["commit", "/runs/daylight-api/41"],
  ["deployment", "/deployments/41"],
  ["package", "/packages?name=x"],
  ["account", "/settings/accounts/x"],
] as const)("leads from %s to its page", (thing, path) => expect(pathOf(found(thing))).toBe(path));

it("offers a promotion to whoever may promote, and shows it first", () => {
  const acts = (may: boolean) => actsOn(found("version"), ["test", "production"], () => may);
  expect(acts(false)).toEqual([]);
  expect(acts(true).map((row) => row.to)).toEqual([
    "/versions/daylight-api/1.4.7?promote=daylight-api:1.4.7:test",
    "/versions/daylight-api/1.4.7?promote=daylight-api:1.4.7:production",
  ]);
});

it("writes what is odd into addresses safely", () => {
  expect(pathOf(found("version", { version: "1/../2 %" }))).toBe("/versions/daylight-api/1%2F..%2F2%20%25");
});

const rows = (kind: string, count: number): Row[] =>
  Array.from({ length: count }, (_, at) => ({ key: `${kind}${at}`, kind, name: "", sentence: "", to: "" }));

it.each([
  [20, 20, 20, [5, 2, 2]],
  [1, 0, 20, [1, 0, 8]],
  [20, 0, 0, [9, 0, 0]],
  [3, 4, 1, [3, 4, 1]],
  [0, 0, 0, [0, 0, 0]],
])("shows at most nine of %i things, %i acts and %i pages", (things, acts, pages, shown) => {
  const all = rowsOf(rows("thing", things), rows("act", acts), rows("page", pages));
  expect(["thing", "act", "page"].map((kind) => all.filter((row) => row.kind === kind).length)).toEqual(shown);
});

it("finds pages by a part of their name", () => {
  expect(pagesOf("WHERE").map((row) => row.to)).toContain("/");
  expect(pagesOf("no such page")).toEqual([]);
});

it("remembers what was looked at, each once, the newest first", () => {
  const kept = new Map<string, string>();
  const storage = {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
  };
  for (let at = 0; at < 12; at++) look(storage, `/runs/a/${at}`, `a #${at}`);
  look(storage, "/runs/a/5", "a #5");
  expect(lookedAt(storage)[0]?.to).toBe("/runs/a/5");
  expect(lookedAt(storage)).toHaveLength(9);
  expect(lookedAt({ getItem: () => "{" })).toEqual([]);
});
