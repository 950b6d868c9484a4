import { tz } from "@date-fns/tz";
import { format, isThisYear, isToday } from "date-fns";
import { useEffect, useState } from "react";
import { OWN, useZone } from "./zone";

/** A length of time, such as "2 min 44 s", without the seconds that the service was away. */
export function lengthOf(from: string, to: Date, away = 0): string {
  return lasting(Math.max(0, Math.round((to.getTime() - new Date(from).getTime()) / 1000) - away));
}

/** Says what a length of time leaves out. */
export const without = (away: number) => (away === 0 ? "" : ` without ${lasting(away)} in which the service was away`);

/** So many seconds, in their two largest units; what would be none of one is left out. */
export function lasting(seconds: number): string {
  const two = (unit: number, name: string, smaller: number, rest: string) => {
    const more = Math.floor((seconds % unit) / smaller);
    return `${Math.floor(seconds / unit)} ${name}${more === 0 ? "" : ` ${more} ${rest}`}`;
  };
  if (seconds < 60) return `${seconds} s`;
  if (seconds < 600) return two(60, "min", 1, "s");
  if (seconds < 3600) return `${Math.floor(seconds / 60)} min`;
  if (seconds < 86400) return two(3600, "h", 60, "min");
  return two(86400, "d", 3600, "h");
}

/** In the zone that is named, else in the reader's; the day where it is another one, the year likewise. */
export const clockOf = (time: string, zone: string = OWN) => {
  const there = { in: tz(zone) };
  const day = isToday(time, there) ? "" : isThisYear(time, there) ? "EEE d MMM " : "d MMM yyyy ";
  return format(time, `${day}HH:mm`, there);
};
export const exactOf = (time: string, zone: string = OWN) =>
  `${format(time, "EEEE d MMMM yyyy, HH:mm:ss", { in: tz(zone) })} ${zone}`;

/** The time now, once a second, or once in so many milliseconds. */
export function useNow(every = 1000): Date {
  const [now, setNow] = useState(() => new Date());
  useEffect(() => {
    const timer = setInterval(() => setNow(new Date()), every);
    return () => clearInterval(timer);
  }, [every]);
  return now;
}

/** A moment in the page's zone, in one line; the exact one on hover. */
export function At({ time }: { time: string }) {
  const zone = useZone();
  return (
    <time dateTime={time} title={exactOf(time, zone)} className="whitespace-nowrap">
      {clockOf(time, zone)}
    </time>
  );
}

/** How long since; the exact moment on hover. */
export function Since({ time }: { time: string }) {
  const now = useNow();
  const zone = useZone();
  return (
    <time dateTime={time} title={exactOf(time, zone)}>
      {lengthOf(time, now)}
    </time>
  );
}
