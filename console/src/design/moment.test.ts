import { format } from "date-fns";
import { expect, it } from "vitest";
import { momentOf, written } from "./moment";

/** A Monday. */
const NOW = new Date(2026, 10, 30, 10, 30);

it.each([
  ["3 h ago", "2026-11-30 07:30"],
  ["90min ago", "2026-11-30 09:00"],
  ["2 d ago", "2026-11-28 10:30"],
  ["yesterday 17:00", "2026-11-29 17:00"],
  ["Yesterday", "2026-11-29 00:00"],
  ["today 9", "2026-11-30 09:00"],
  ["17:00", "2026-11-30 17:00"],
  ["fri 17:00", "2026-11-27 17:00"],
  ["Friday 17:00", "2026-11-27 17:00"],
  ["mon 9:00", "2026-11-30 09:00"],
  ["mon 11:00", "2026-11-23 11:00"],
  ["27 nov 9:00", "2026-11-27 09:00"],
  ["27 Nov", "2026-11-27 00:00"],
  ["24 dec 2025 8:05", "2025-12-24 08:05"],
  ["2026-11-27 17:00", "2026-11-27 17:00"],
  ["2026-11-27T17:00", "2026-11-27 17:00"],
  ["2026-11-27", "2026-11-27 00:00"],
])("understands %s", (text, moment) => {
  const found = momentOf(text, NOW);
  expect(found && format(found, "yyyy-MM-dd HH:mm")).toBe(moment);
});

it.each(["", "soon", "fri 25:00", "yesterday 9:75", "31 feb", "5 y ago", "2026-13-01", "fr"])(
  "does not guess at “%s”",
  (text) => {
    expect(momentOf(text, NOW)).toBeUndefined();
  },
);

it("is written as an address has it", () => {
  expect(written(NOW)).toBe("2026-11-30T10:30");
});
