import { expect, it } from "vitest";
import { liveAt, marks, momentAt, place, type Lane } from "./lanes";

const at = (text: string) => new Date(text).getTime();
const day = { from: at("2026-05-04T00:00:00"), to: at("2026-05-05T00:00:00") };

it("places moments within the time, and finds them again", () => {
  expect(place("2026-05-04T06:00:00", day)).toBe(25);
  expect([place("2026-05-03T00:00:00", day), place("2027-01-01T00:00:00", day)]).toEqual([0, 100]);
  expect(momentAt(0.25, day)).toEqual(new Date("2026-05-04T06:00:00"));
});

it.each([
  ["an hour", 60, 5, "HH:mm"],
  ["a day", 24 * 60, 7, "03:00"],
  ["a week", 7 * 24 * 60, 6, "d MMM"],
  ["a month", 30 * 24 * 60, 4, "d MMM"],
  ["a year", 365 * 24 * 60, 6, "MMM yyyy"],
])("marks %s by a handful of whole times", (_, minutes, fewest) => {
  const found = marks({ from: day.from + 60_000, to: day.from + 60_000 + minutes * 60_000 });
  expect(found.length).toBeGreaterThanOrEqual(fewest);
  expect(found.length).toBeLessThanOrEqual(10);
  expect(new Set(found.map((each) => each.word)).size).toBe(found.length);
  expect(found.every((each) => new Date(each.at).getMinutes() % 10 === 0)).toBe(true);
});

it("says what was live at a moment, and that nothing was", () => {
  const live = [
    { version: "1.4.1", deployment: 3, from: "2026-05-04T06:00:00", until: "2026-05-04T08:00:00", emergency: false },
    { version: "1.4.2", deployment: 5, from: "2026-05-04T09:00:00", emergency: false },
  ];
  const lane: Lane = { component: "c", environment: "e", live, held: [], closed: [], wrong: [] };
  const told = ["05:59", "06:00", "07:59", "08:00", "09:00", "23:00"].map(
    (time) => liveAt(lane, at(`2026-05-04T${time}:00`))?.version,
  );
  expect(told).toEqual([undefined, "1.4.1", "1.4.1", undefined, "1.4.2", "1.4.2"]);
});
