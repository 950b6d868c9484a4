import { tz } from "@date-fns/tz";
import { format, isToday } from "date-fns";
import { useEffect, useState } from "react";
import { OWN, useZone } from "./zone";

/** A length of time, such as "2 min 44 s", without the seconds that the service was away. */
export function lengthOf(from: string, to: Date, away = 0): string {
  return lasting(Math.max(0, Math.round((to.getTime() - new Date(from).getTime()) / 1000) - away));
}

/** Says what a length of time leaves out. */
export const without = (away: number) => (away === 0 ? "" : ` without ${lasting(away)} in which the service was away`);

/** So many seconds, in their two largest units. */
export function lasting(seconds: number): string {
  if (seconds < 60) return `${seconds} s`;
  if (seconds < 3600) return `${Math.floor(seconds / 60)} min ${seconds % 60} s`;
  if (seconds < 48 * 3600) return `${Math.floor(seconds / 3600)} h ${Math.floor((seconds % 3600) / 60)} min`;
  return `${Math.floor(seconds / 86400)} d`;
}

/** In the zone that is named, else in the reader's. */
export const clockOf = (time: string, zone: string = OWN) =>
  format(time, isToday(time, { in: tz(zone) }) ? "HH:mm" : "EEE d MMM HH:mm", { in: tz(zone) });
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

/** A moment in the page's zone; the exact one on hover. */
export function At({ time }: { time: string }) {
  const zone = useZone();
  return (
    <time dateTime={time} title={exactOf(time, zone)}>
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
