import { expect, it } from "vitest";
import type { Schemas } from "./client";
import { fresh } from "./tell";

const notice = (id: number, read = false) => ({ id, read }) as Schemas["NoticeView"];

it.each([
  [0, [3, 2]],
  [2, [3]],
  [3, []],
])("shows what is unread and newer than %d", (shown, ids) => {
  expect(fresh([notice(3), notice(2), notice(1, true)], shown).map((each) => each.id)).toEqual(ids);
});
