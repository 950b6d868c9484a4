import { useQuery } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import type { LogSource } from "./source";

export interface SearchState {
  wanted: string;
  words: string;
  /** The line of the hit that is shown. */
  current: number | undefined;
  look: (text: string) => void;
  go: (by: number) => void;
}

/** Looks for a text in the whole log, where it lies; the first thousand hits can be walked through. */
export function useSearch(source: LogSource, total: number, show: (line: number) => void): SearchState {
  const [wanted, setWanted] = useState("");
  const [hit, setHit] = useState(-1);
  const text = useDeferredValue(wanted.trim());
  // While a log grows it is looked through again from time to time, not with every line.
  const grown = Math.floor(Math.log2(total + 1) * 4);
  const found = useQuery({
    queryKey: ["log-search", source.key, text, grown],
    queryFn: () => source.search(text),
    enabled: text.length > 1,
    staleTime: Infinity,
    placeholderData: (before) => before,
  });
  const lines = text.length > 1 ? (found.data?.lines ?? []) : [];
  const go = (by: number) => {
    if (lines.length === 0) return;
    const next = hit < 0 && by < 0 ? lines.length - 1 : (hit + by + lines.length) % lines.length;
    setHit(next);
    show(lines[next] ?? 1);
  };
  const all = found.data?.total ?? 0;
  const words =
    found.isFetching && lines.length === 0
      ? "…"
      : lines.length === 0
        ? "none"
        : hit < 0
          ? `${all}`
          : `${hit + 1} of ${all}`;
  return {
    wanted,
    words,
    current: hit < 0 ? undefined : lines[hit],
    look: (next) => {
      setWanted(next);
      setHit(-1);
    },
    go,
  };
}
