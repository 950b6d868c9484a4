import { useEffect, useState } from "react";
import { api, need, type Schemas } from "../../api/client";

export type LogLine = Schemas["LogLineView"];

const PART = 5000;

/** Follows a stage's log from its first line until the stage has ended and all of it is here. */
export function useLog(component: string, number: number, stage: Schemas["StageView"]) {
  const [lines, setLines] = useState<LogLine[]>([]);
  const [away, setAway] = useState(false);
  const begun = stage.work !== undefined;
  useEffect(() => {
    if (!begun) return;
    const stop = new AbortController();
    void follow(component, number, stage.name, stop.signal, (more) => setLines((before) => [...before, ...more]), setAway);
    return () => stop.abort();
  }, [component, number, stage.name, begun]);
  return { lines, away };
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

async function follow(component: string, number: number, stage: string, stop: AbortSignal, add: (lines: LogLine[]) => void, away: (is: boolean) => void) {
  let from = 1;
  while (!stop.aborted) {
    try {
      if (document.hidden) await shown(stop);
      const part = await need(api.GET("/api/v1/runs/{component}/{number}/stages/{stage}/log", {
        params: { path: { component, number, stage }, query: { from, limit: PART, waitMillis: 10_000 } }, signal: stop,
      }));
      if (stop.aborted) return;
      away(false);
      if (part.lines.length > 0) add(part.lines);
      from = part.next;
      if (part.ended && part.lines.length === 0) return;
    } catch {
      if (stop.aborted) return;
      away(true);
      await new Promise((resolve) => setTimeout(resolve, 1000));
    }
  }
}
