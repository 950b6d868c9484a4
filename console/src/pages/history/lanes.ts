import { format } from "date-fns";
import type { Schemas } from "../../api/client";

export type Lane = Schemas["LaneView"];

/** A time that is looked at, in milliseconds. */
export interface Span {
  from: number;
  to: number;
}

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const DAY = 24 * HOUR;
/** How far marks may be from each other, and how each is then said. */
const STEPS: [number, string][] = [
  [10 * MINUTE, "HH:mm"],
  [30 * MINUTE, "HH:mm"],
  [HOUR, "HH:mm"],
  [3 * HOUR, "HH:mm"],
  [6 * HOUR, "EEE HH:mm"],
  [DAY, "EEE d MMM"],
  [2 * DAY, "EEE d MMM"],
  [7 * DAY, "d MMM"],
  [14 * DAY, "d MMM"],
  [31 * DAY, "MMM yyyy"],
  [62 * DAY, "MMM yyyy"],
];
const MOST_MARKS = 9;

/** Where a moment stands, in percent of the width; never outside. */
export const place = (moment: string | number, { from, to }: Span) =>
  Math.min(100, Math.max(0, ((new Date(moment).getTime() - from) / (to - from)) * 100));

/** The moment at a share of the width, to the second. */
export const momentAt = (share: number, { from, to }: Span) =>
  new Date(Math.round((from + share * (to - from)) / 1000) * 1000);

/** Marks of an axis: whole hours, days or months, as the time's length allows. */
export function marks({ from, to }: Span): { at: number; word: string }[] {
  const [step, form] = STEPS.find(([each]) => (to - from) / each <= MOST_MARKS) ?? STEPS.at(-1)!;
  const found: { at: number; word: string }[] = [];
  const first = new Date(from);
  if (step >= 31 * DAY) first.setDate(1);
  if (step >= DAY) first.setHours(0, 0, 0, 0);
  else first.setMinutes(0, 0, 0);
  if (step > HOUR && step < DAY) first.setHours(0);
  for (const at = first; at.getTime() < to;) {
    if (at.getTime() > from) found.push({ at: at.getTime(), word: format(at, form) });
    if (step >= 31 * DAY) at.setMonth(at.getMonth() + Math.round(step / (31 * DAY)));
    else if (step >= DAY) at.setDate(at.getDate() + step / DAY);
    else at.setTime(at.getTime() + step);
  }
  return found;
}

/** What was live in a lane at a moment. */
export const liveAt = ({ live }: Lane, moment: number) =>
  live.findLast(
    ({ from, until }) => new Date(from).getTime() <= moment && (!until || new Date(until).getTime() > moment),
  );
