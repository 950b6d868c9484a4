import { expect, it } from "vitest";
import type { Schemas } from "../../api/client";
import { differs, isMine, linesOf, membersOf, setOf, sumsOf, wordOf } from "./dense";

type Cell = Schemas["CellView"];
type Row = Schemas["RowView"];

const marks = { unhealthy: 0, differing: 0, drifted: 0, away: 0, blocked: false, daysBehind: 0 };
const cell = (more: Partial<Cell> = {}): Cell => ({
  environment: "test",
  version: "1.4.7",
  hosts: 1,
  retired: false,
  coming: [],
  behind: 0,
  ...more,
});
const coming = (status: Schemas["ComingView"]["status"], forYou = false) => ({
  deployment: 9,
  version: "1.4.8",
  status,
  requestedAt: "2026-11-23T09:00:00Z",
  forYou,
});
const row = (component: string, cells: Cell[], labels: Record<string, string> = {}): Row => ({
  component,
  summary: "",
  labels,
  cells,
  stays: [],
});

it.each([
  ["level", cell(), "1.4.7", undefined],
  ["level", cell(), undefined, undefined],
  ["other", cell(), "1.4.6", undefined],
  ["3 behind", cell({ behind: 3 }), "1.4.7", undefined],
  ["nothing yet", cell({ version: undefined }), "1.4.7", undefined],
  ["held", cell({ marks: { ...marks, held: "by ada" }, behind: 2 }), "1.4.7", "warn"],
  ["hosts differ", cell({ marks: { ...marks, drifted: 1, held: "by ada" } }), "1.4.7", "warn"],
  ["unhealthy", cell({ marks: { ...marks, unhealthy: 1, drifted: 1 } }), "1.4.7", "bad"],
  ["blocked", cell({ marks: { ...marks, blocked: true } }), "1.4.7", "bad"],
  ["1.4.8 deploying", cell({ coming: [coming("deploying")], marks: { ...marks, unhealthy: 1 } }), "1.4.7", "ink"],
  ["1.4.8 waits for you", cell({ coming: [coming("deploying"), coming("waiting", true)] }), "1.4.7", "need"],
])("says %s first", (word, of, before, tone) => {
  const said = wordOf(of, before);
  expect(said.word).toBe(word);
  expect(said.tone).toBe(tone);
});

it("says all of it when one looks closer", () => {
  expect(wordOf(cell({ behind: 2, marks: { ...marks, held: "by ada" } }), "1.4.7").more).toBe("2 behind; held: by ada");
});

it("leaves out what is level", () => {
  expect(differs(row("a", [cell(), cell()]))).toBe(false);
  expect(differs(row("a", [cell(), cell({ behind: 1 })]))).toBe(true);
  expect(
    differs({ ...row("a", [cell()]), stays: [{ version: "1", environment: "test", reason: "r" }] as Row["stays"] }),
  ).toBe(true);
  expect(isMine(row("a", [cell({ coming: [coming("waiting")] })]))).toBe(false);
  expect(isMine(row("a", [cell({ coming: [coming("waiting", true)] })]))).toBe(true);
});

it("sums a group in words, and folds it to them", () => {
  const rows = [
    row("a", [cell({ behind: 1 })], { team: "wardens" }),
    row("b", [cell({ coming: [coming("waiting", true)] })], { team: "wardens" }),
    row("c", [cell({ coming: [coming("deploying")] })], { team: "works" }),
  ];
  expect(sumsOf(rows)).toBe("3 components, 1 behind, 1 on the way, 1 waits for you");
  expect(sumsOf([row("d", [cell()])])).toBe("1 component");
  expect(linesOf(rows, "", new Set())).toHaveLength(3);
  expect(linesOf(rows, "team", new Set())).toHaveLength(5);
  expect(
    linesOf(rows, "team", new Set(["wardens"])).map((line) => ("head" in line ? line.value : line.row.component)),
  ).toEqual(["wardens", "works", "c"]);
});

it("says in an address which versions go together, and reads it", () => {
  const address = setOf(
    new Map([
      ["daylight-api", "1.4.7-feature-moon.1+2"],
      ["path-board", "0.9.4"],
    ]),
  );
  expect(membersOf(new URL(address, "http://park.example").searchParams)).toEqual([
    { component: "daylight-api", version: "1.4.7-feature-moon.1+2" },
    { component: "path-board", version: "0.9.4" },
  ]);
  expect(membersOf(new URLSearchParams("of=daylight-api&of=:1&of="))).toEqual([]);
});
