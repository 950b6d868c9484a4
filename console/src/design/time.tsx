import { format, isToday } from "date-fns";
import { useEffect, useState } from "react";

/** A length of time, such as "2 min 44 s". */
export function lengthOf(from: string, to: Date): string {
  const seconds = Math.max(0, Math.round((to.getTime() - new Date(from).getTime()) / 1000));
  if (seconds < 60) return `${seconds} s`;
  if (seconds < 3600) return `${Math.floor(seconds / 60)} min ${seconds % 60} s`;
  if (seconds < 48 * 3600) return `${Math.floor(seconds / 3600)} h ${Math.floor((seconds % 3600) / 60)} min`;
  return `${Math.floor(seconds / 86400)} d`;
}

export const clockOf = (time: string) => format(new Date(time), isToday(new Date(time)) ? "HH:mm" : "EEE d MMM HH:mm");
export const exactOf = (time: string) => format(new Date(time), "EEEE d MMMM yyyy, HH:mm:ss");

/** The time now, once a second. */
export function useNow(): Date {
  const [now, setNow] = useState(() => new Date());
  useEffect(() => {
    const timer = setInterval(() => setNow(new Date()), 1000);
    return () => clearInterval(timer);
  }, []);
  return now;
}

/** A moment in the reader's zone; the exact one on hover. */
export const At = ({ time }: { time: string }) => <time dateTime={time} title={exactOf(time)}>{clockOf(time)}</time>;

/** How long since; the exact moment on hover. */
export function Since({ time }: { time: string }) {
  const now = useNow();
  return <time dateTime={time} title={exactOf(time)}>{lengthOf(time, now)}</time>;
}
