import { expect, it } from "vitest";
import type { Schemas } from "../../api/client";
import { byThing } from "./about";

const notice = (id: number, path: string, read = false): Schemas["NoticeView"] => ({
  id,
  path,
  read,
  event: "decided",
  component: "",
  title: `notice ${id}`,
  body: "",
  at: "2026-05-04T08:00:00Z",
});

it("puts notices of one thing together, at the place of the newest", () => {
  const groups = byThing([notice(4, "/a", true), notice(3, "/b"), notice(2, "/a"), notice(1, "/c", true)]);
  expect(groups.map((each) => [each.path, each.newest.id, each.earlier.map((one) => one.id), each.unread])).toEqual([
    ["/a", 4, [2], true],
    ["/b", 3, [], true],
    ["/c", 1, [], false],
  ]);
});
