import { expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { doingIn, told } from "./ground";

const environment = (name: string, closed?: string) => ({ name, closed });

it("says what moves in an environment, else whether it is open", () => {
  const where = {
    environments: [environment("test"), environment("staging"), environment("production", "frozen")],
    rows: [
      {
        component: "daylight-api",
        cells: [
          { environment: "test", coming: [] },
          { environment: "staging", coming: [{ version: "1.4.8", status: "waiting" }] },
          { environment: "staging", coming: [{ version: "1.4.7", status: "deploying" }] },
        ],
      },
    ],
  } as unknown as Schemas["WhereaboutsView"];
  expect(doingIn(where)).toEqual([
    ["test", "open"],
    ["staging", "daylight-api 1.4.7 deploying"],
    ["production", "closed"],
  ]);
});

const many = (open: number, closed: number): [string, string][] => [
  ...Array.from({ length: open }, (_, at): [string, string] => [`open-${at}`, "open"]),
  ...Array.from({ length: closed }, (_, at): [string, string] => [`shut-${at}`, "closed"]),
];

it.each([
  [4, 2, ["open-0", "open-1", "open-2", "open-3", "shut-0", "shut-1"]],
  [11, 1, ["shut-0", "11 others"]],
  [12, 0, ["12 environments"]],
  [1, 7, ["shut-0", "shut-1", "shut-2", "shut-3", "shut-4", "2 more", "1 other"]],
  [0, 7, ["shut-0", "shut-1", "shut-2", "shut-3", "shut-4", "2 more"]],
])("of %d open and %d closed environments names those that there is room for", (open, closed, names) => {
  expect(told(many(open, closed)).map(([name]) => name)).toEqual(names);
});
