import { useVirtualizer } from "@tanstack/react-virtual";
import { ChevronDown, ChevronRight } from "lucide-react";
import { useEffect, useMemo, useRef, useState } from "react";
import { Glyph } from "../design/Glyph";
import { bytes } from "../design/parts";
import { workState } from "../design/states";
import { lengthOf, useNow } from "../design/time";
import { LogBar } from "./LogBar";
import { Text } from "./Text";
import { countOf, indexOf, partsOf, rowAt, type Step } from "./rows";
import type { LogSource } from "./source";
import { useLog, type LogLine } from "./useLog";
import { useSearch } from "./useSearch";

const LOG_LINE = "flex h-5.25 gap-3.5 pr-3";
const CURRENT = "[background:color-mix(in_srgb,var(--mark)_22%,transparent)] [box-shadow:inset_3px_0_0_var(--ink)]";
const LINE_NUMBER =
  "w-14.5 flex-none border-r border-r-line pr-2.5 text-right text-ink-3 no-underline " +
  "[font:400_12px/21px_var(--font-mono)]";
const LINE_TEXT = "text-[12.5px] leading-[21px] font-[450] tracking-[-0.02em] whitespace-pre";
const LOG_STEP =
  "flex items-center gap-2 w-full h-8 pr-4 pl-2.5 border-0 border-b border-b-line bg-surface text-[13px] " +
  "[--gbg:var(--surface)] [&_b]:font-mono [&_b]:text-[12.5px] [&_b]:tracking-[-0.02em] [&_b]:overflow-hidden " +
  "[&_b]:text-ellipsis [&_b]:whitespace-nowrap [&_.quiet]:whitespace-nowrap";

const named = () => Number(/^#L(\d+)$/.exec(location.hash)?.[1] ?? 0);

/** A log, folded by step, live, searched, with a link to each line; of any length. */
export function Log({ source }: { source: LogSource }) {
  const log = useLog(source);
  const [closed, setClosed] = useState<ReadonlySet<number>>(new Set());
  const [following, setFollowing] = useState(!named());
  const parts = useMemo(() => partsOf(source.steps, log.spans, closed), [source.steps, log.spans, closed]);
  const rows = countOf(parts);
  const scroll = useRef<HTMLDivElement>(null);
  const list = useVirtualizer({
    count: rows,
    getScrollElement: () => scroll.current,
    overscan: 20,
    estimateSize: (at) => (parts.length < 2000 && rowAt(parts, at)?.kind === "step" ? 32 : 21),
  });
  const items = list.getVirtualItems();
  const numbers = items.flatMap((item) => {
    const row = rowAt(parts, item.index);
    return row?.kind === "line" ? [row.number] : [];
  });
  const first = numbers[0];
  const last = numbers.at(-1);
  const { want } = log;

  useEffect(() => {
    if (first !== undefined && last !== undefined) want(first, last);
  }, [first, last, want]);
  useEffect(() => {
    if (following && rows > 0) list.scrollToIndex(rows - 1, { align: "end" });
  }, [following, rows, list]);
  const show = (line: number) => {
    const at = indexOf(parts, line);
    setFollowing(false);
    if (at !== undefined) list.scrollToIndex(at, { align: "center" });
  };
  const began = useRef(false);
  useEffect(() => {
    if (began.current || rows === 0 || !named()) return;
    began.current = true;
    const at = indexOf(parts, named());
    if (at !== undefined) list.scrollToIndex(at, { align: "center" });
  }, [rows, parts, list]);

  const search = useSearch(source, log.total, show);
  const flip = (step: Step) =>
    setClosed((before) => {
      const after = new Set(before);
      if (!after.delete(step.position)) after.add(step.position);
      return after;
    });
  return (
    <section className="sheet overflow-hidden bg-log [--gbg:var(--log)]" aria-label={`Log of ${source.title}`}>
      <LogBar
        source={source}
        total={log.total}
        away={log.away}
        search={search}
        following={following}
        onFollow={() => setFollowing(!following)}
      />
      <div
        className="h-[max(300px,calc(100vh-420px))] overflow-auto max-[720px]:h-90"
        ref={scroll}
        tabIndex={0}
        role="region"
        aria-label="Log lines"
        onWheel={() => setFollowing(false)}
      >
        {rows === 0 && <p className="p-4 text-ink-3">{source.empty}</p>}
        <div style={{ height: list.getTotalSize(), position: "relative" }}>
          {items.map((item) => {
            const row = rowAt(parts, item.index);
            return (
              <div
                key={item.key}
                className="absolute left-0 right-0 top-0"
                style={{ transform: `translateY(${item.start}px)`, height: item.size }}
              >
                {row?.kind === "step" && <StepRow step={row.step} open={row.open} onFlip={() => flip(row.step)} />}
                {row?.kind === "line" && (
                  <LineRow
                    number={row.number}
                    line={log.line(row.number)}
                    wanted={search.wanted}
                    current={search.current === row.number}
                  />
                )}
              </div>
            );
          })}
        </div>
      </div>
    </section>
  );
}

function LineRow({
  number,
  line,
  wanted,
  current,
}: {
  number: number;
  line: LogLine | undefined;
  wanted: string;
  current: boolean;
}) {
  const id = `L${number}`;
  return (
    <div className={`log-line ${LOG_LINE} ${current || named() === number ? `current ${CURRENT}` : ""}`} id={id}>
      <a className={LINE_NUMBER} href={`#${id}`} aria-label={`Line ${number}`}>
        {number}
      </a>
      <code className={LINE_TEXT}>{line ? <Text text={line.text} wanted={wanted} /> : " "}</code>
    </div>
  );
}

function StepRow({ step, open, onFlip }: { step: Step; open: boolean; onFlip: () => void }) {
  const now = useNow();
  const state = workState(step.status);
  const words = [`${state.word}, ${lengthOf(step.startedAt, step.endedAt ? new Date(step.endedAt) : now)}`];
  if (step.exitCode) words.push(`exit status ${step.exitCode}`);
  if (step.peakMemory) words.push(`at most ${bytes(step.peakMemory)}`);
  return (
    <button type="button" className={LOG_STEP} aria-expanded={open} onClick={onFlip}>
      {open ? <ChevronDown size={16} /> : <ChevronRight size={16} />}
      <Glyph shape={state.shape} tone={state.tone} />
      <b>{step.name}</b>
      <span className="quiet">
        step {step.position}
        {step.tried > 1 ? `, try ${step.tried}` : ""}
      </span>
      <span className="grow" />
      <span className="quiet">{words.join(", ")}</span>
    </button>
  );
}
