import { addDays, format, isValid, parse, set, startOfDay, subDays, subHours, subMinutes } from "date-fns";

const DAYS = ["sun", "mon", "tue", "wed", "thu", "fri", "sat"];
const FORMATS = ["yyyy-MM-dd HH:mm", "yyyy-MM-dd'T'HH:mm", "yyyy-MM-dd", "d MMM yyyy HH:mm", "d MMM HH:mm", "d MMM"];

/** As an address has it, in the reader's zone. */
export const written = (moment: Date) => format(moment, "yyyy-MM-dd'T'HH:mm");

/** A time of the day, such as 9, 9:30 or 17:05; none is the beginning of it. */
function at(day: Date, time: string | undefined): Date | undefined {
  if (!time) return startOfDay(day);
  const [, hours = "", minutes = "0"] = /^(\d{1,2})(?::(\d\d))?$/.exec(time) ?? [];
  if (hours === "" || Number(hours) > 23 || Number(minutes) > 59) return undefined;
  return set(startOfDay(day), { hours: Number(hours), minutes: Number(minutes) });
}

const BACK: Record<string, (now: Date, count: number) => Date> = { min: subMinutes, h: subHours, d: subDays };

/**
 * The moment that somebody means: `3 h ago`, `yesterday 17:00`, `fri 9:00` (the last one), `17:00` (today), `27 nov
 * 9:00`, `2026-11-27 17:00`. Nothing where it says none.
 */
export function momentOf(text: string, now: Date): Date | undefined {
  const words = text.trim().toLowerCase().replaceAll(/\s+/g, " ");
  const ago = /^(\d{1,4}) ?(min|h|d) ago$/.exec(words);
  if (ago) return BACK[ago[2] ?? ""]?.(now, Number(ago[1]));
  const [first = "", time, more] = words.split(" ");
  if (!more) {
    if (first === "today") return at(now, time);
    if (first === "yesterday") return at(subDays(now, 1), time);
    const day = first.length >= 3 ? DAYS.findIndex((each) => first.startsWith(each)) : -1;
    if (day >= 0) {
      const back = (now.getDay() - day + 7) % 7;
      const found = at(subDays(now, back), time);
      return found && found > now ? addDays(found, -7) : found;
    }
    if (/^\d{1,2}:\d\d$/.test(words)) return at(now, words);
  }
  for (const each of FORMATS) {
    const found = parse(text.trim().replaceAll(/\s+/g, " "), each, startOfDay(now));
    if (isValid(found) && found.getFullYear() > 1999) return found;
  }
  return undefined;
}
