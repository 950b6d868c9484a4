import { useCallback, useEffect, useRef, useState } from "react";
import type { Schemas } from "../api/client";
import type { LogSource } from "./source";

export type LogLine = Schemas["LogLineView"];

const PAGE = 500;
const TAIL = 300;
const MOST_KEPT = 60_000;

interface Outline {
  total: number;
  spans: Schemas["SpanView"][];
  ended: boolean;
}

/**
 * A log of any length: how long it is, live, and the lines that are looked at. Only the newest lines and those on
 * the screen are fetched.
 */
export function useLog(source: LogSource) {
  const [outline, setOutline] = useState<Outline>({ total: 0, spans: [], ended: false });
  const [away, setAway] = useState(false);
  const [, setArrived] = useState(0);
  const lines = useRef(new Map<number, LogLine>());
  const asked = useRef(new Set<number>());
  const { key, begun } = source;
  const from = useRef(source);
  useEffect(() => {
    from.current = source;
  });

  const add = useCallback((more: LogLine[]) => {
    if (lines.current.size > MOST_KEPT) {
      lines.current.clear();
      asked.current.clear();
    }
    more.forEach((line) => lines.current.set(line.number, line));
    setArrived((before) => before + 1);
  }, []);

  useEffect(() => {
    if (!begun) return;
    const stop = new AbortController();
    void follow(
      from.current,
      stop.signal,
      (part) => {
        setAway(false);
        if (part.lines.length > 0) add(part.lines);
        setOutline({ total: part.total, spans: part.outline, ended: part.ended });
      },
      setAway,
    );
    return () => stop.abort();
  }, [key, begun, add]);

  /** Fetches the pages that hold these lines, once. */
  const want = useCallback(
    (first: number, last: number) => {
      for (let page = Math.floor((first - 1) / PAGE); page <= Math.floor((last - 1) / PAGE); page++) {
        const begins = page * PAGE + 1;
        const missing = Array.from(
          { length: Math.min(last, begins + PAGE - 1) - Math.max(first, begins) + 1 },
          (_, at) => Math.max(first, begins) + at,
        ).some((line) => !lines.current.has(line));
        if (!missing || asked.current.has(page)) continue;
        asked.current.add(page);
        from.current
          .part({ from: begins, limit: PAGE })
          .then((part) => {
            add(part.lines);
            if (part.lines.length < PAGE) asked.current.delete(page);
          })
          .catch(() => asked.current.delete(page));
      }
    },
    [add],
  );

  return { ...outline, away, line: (at: number) => lines.current.get(at), want };
}

/** Waits until the page is looked at: a hidden one leaves the browser's few connections to the others. */
const shown = (stop: AbortSignal) =>
  new Promise<void>((resolve) => {
    const done = () => {
      if (!document.hidden || stop.aborted) resolve();
    };
    document.addEventListener("visibilitychange", done, { signal: stop });
    stop.addEventListener("abort", done);
  });

/** Asks for the newest lines again and again; the service answers when there are some. */
async function follow(
  source: LogSource,
  stop: AbortSignal,
  heard: (part: Schemas["LogView"]) => void,
  away: (is: boolean) => void,
) {
  let from = 1;
  while (!stop.aborted) {
    try {
      if (document.hidden) await shown(stop);
      const part = await source.part({ from, limit: TAIL, waitMillis: 10_000, newest: true }, stop);
      if (stop.aborted) return;
      heard(part);
      from = Math.max(from, part.next);
      if (part.ended && part.total < from) return;
      // The eye reads no faster: a torrent is looked at ten times a second.
      await new Promise((resolve) => setTimeout(resolve, 100));
    } catch {
      if (stop.aborted) return;
      away(true);
      await new Promise((resolve) => setTimeout(resolve, 1000));
    }
  }
}
