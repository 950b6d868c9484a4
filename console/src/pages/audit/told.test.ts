import { expect, it } from "vitest";
import type { Schemas } from "../../api/client";
import { marks, others, pathOf } from "./told";

const written = (
  subject: string,
  details: Record<string, string> = {},
  where = "",
  what = "held",
): Schemas["WrittenView"] => ({
  format: 1,
  at: "2026-11-30T02:00:00Z",
  who: "admin",
  what,
  subject,
  where,
  because: "",
  details,
});

it.each([
  [{ emergency: "The huts are dark" }, "promotion requested", ["emergency"]],
  [{ emergency: "" }, "promotion requested", []],
  [{ "past the hold": "admin: r", emergency: "e" }, "promotion requested", ["emergency", "past the hold"]],
  [{ "in place of": "approver-1" }, "approved", ["in place of approver-1"]],
  [{ loosening: "4" }, "rules loaded", ["loosens rules"]],
  [{}, "loosening agreed to", ["loosens rules"]],
  [{}, "held", []],
])("marks %o of “%s” as %o", (details, what, found) => {
  expect(marks(written("daylight-api", details as Record<string, string>, "", what))).toEqual(found);
});

it.each([
  ["daylight-api 1.4.2", { deployment: "41" }, "production", "/deployments/41"],
  ["daylight-api 1.4.2", { passage: "7" }, "staging", "/passages/7"],
  ["daylight-api 1.4.2", {}, "", "/versions/daylight-api/1.4.2"],
  ["daylight-api 1.4.2+x/y", {}, "", "/versions/daylight-api/1.4.2%2Bx%2Fy"],
  ["daylight-api#41", {}, "", "/runs/daylight-api/41"],
  ["daylight-api", {}, "production", "/places/daylight-api/production"],
  ["production", {}, "production", undefined],
  ["//park.example", {}, "production", undefined],
  ["approver-1", {}, "", undefined],
  ["x", { deployment: "//park.example" }, "", undefined],
])("leads from %s with %o in %s to %s", (subject, details, where, path) => {
  expect(pathOf(written(subject, details as Record<string, string>, where))).toBe(path);
});

it("shows what it holds, but no digests of states", () => {
  expect(others(written("x", { deployment: "4", emergency: "", "state of place 1": "ab" }))).toEqual([
    ["deployment", "4"],
  ]);
});
