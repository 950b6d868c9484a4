import { useVirtualizer } from "@tanstack/react-virtual";
import { ChevronDown, ChevronRight, ChevronUp, Download, ArrowDownToLine, Search } from "lucide-react";
import { useEffect, useMemo, useRef, useState } from "react";
import type { Schemas } from "../../api/client";
import { Glyph } from "../../design/Glyph";
import { workState } from "../../design/states";
import { lengthOf, useNow } from "../../design/time";
import { Text } from "./Text";
import { rowsOf, type LogRow, type Step } from "./rows";
import { useLog } from "./useLog";

interface Props {
  component: string;
  number: number;
  stage: Schemas["StageView"];
}

/** A stage's log, folded by step, live, searched, with a link to each line. */
export function Log({ component, number, stage }: Props) {
  const { lines, away } = useLog(component, number, stage);
  const [closed, setClosed] = useState<ReadonlySet<number>>(new Set());
  const [wanted, setWanted] = useState("");
  const [hit, setHit] = useState(0);
  const [following, setFollowing] = useState(!location.hash);
  const rows = useMemo(() => rowsOf(stage.steps, lines, closed), [stage.steps, lines, closed]);
  const hits = useMemo(() => (wanted.length < 2 ? [] : rows.flatMap((row, at) =>
    row.kind === "line" && row.line.text.toLowerCase().includes(wanted.toLowerCase()) ? [at] : [])), [rows, wanted]);
  const scroll = useRef<HTMLDivElement>(null);
  const list = useVirtualizer({ count: rows.length, getScrollElement: () => scroll.current, estimateSize: (at) => (rows[at]?.kind === "step" ? 32 : 21), overscan: 30 });

  useEffect(() => {
    if (following && rows.length > 0) list.scrollToIndex(rows.length - 1, { align: "end" });
  }, [following, rows.length, list]);

  const go = (to: number) => {
    if (hits.length === 0) return;
    const next = (to + hits.length) % hits.length;
    setHit(next);
    setFollowing(false);
    list.scrollToIndex(hits[next] ?? 0, { align: "center" });
  };
  const flip = (step: Step) => setClosed((before) => {
    const after = new Set(before);
    if (!after.delete(step.position)) after.add(step.position);
    return after;
  });

  return (
    <section className="log sheet" aria-label={`Log of ${stage.name}`}>
      <div className="log-bar">
        <b>{stage.name}</b><span className="quiet">{lines.length} {lines.length === 1 ? "line" : "lines"}{away && ", connection lost"}</span>
        <span className="grow" />
        <label className="log-search">
          <Search size={15} aria-hidden="true" /><span className="sr-only">Search the log</span>
          <input value={wanted} onChange={(event) => { setWanted(event.target.value); setHit(0); }} onKeyDown={(event) => event.key === "Enter" && go(hit + (event.shiftKey ? -1 : 1))} placeholder="Search" />
          {wanted.length > 1 && <span>{hits.length === 0 ? "none" : `${hit + 1} of ${hits.length}`}</span>}
          <button type="button" onClick={() => go(hit - 1)} aria-label="Hit before"><ChevronUp size={16} /></button>
          <button type="button" onClick={() => go(hit + 1)} aria-label="Next hit"><ChevronDown size={16} /></button>
        </label>
        <button type="button" className="btn small" aria-pressed={following} onClick={() => setFollowing(!following)}><ArrowDownToLine size={15} />{following ? "Following" : "Follow"}</button>
        <a className="btn small quiet-btn" href={`/api/v1/runs/${component}/${number}/stages/${stage.name}/log.txt`} download={`${component}-${number}-${stage.name}.log`}><Download size={15} />Whole log</a>
      </div>
      <div className="log-scroll" ref={scroll} tabIndex={0} role="region" aria-label="Log lines" onWheel={() => setFollowing(false)}>
        {rows.length === 0 && <p className="log-empty">{emptyWords(stage)}</p>}
        <div style={{ height: list.getTotalSize(), position: "relative" }}>
          {list.getVirtualItems().map((item) => {
            const row = rows[item.index];
            return (
              <div key={item.key} className="log-row" style={{ transform: `translateY(${item.start}px)`, height: item.size }}>
                {row && <Row row={row} wanted={wanted} current={hits[hit] === item.index} onFlip={flip} />}
              </div>
            );
          })}
        </div>
      </div>
    </section>
  );
}

function emptyWords(stage: Schemas["StageView"]): string {
  if (stage.status === "ready") return "Waits for an agent.";
  if (stage.status === "waiting") return "Waits for the stages before it.";
  return stage.reason ?? (stage.endedAt ? "It said nothing." : "Nothing said yet.");
}

function Row({ row, wanted, current, onFlip }: { row: LogRow; wanted: string; current: boolean; onFlip: (step: Step) => void }) {
  if (row.kind === "step") return <StepRow step={row.step} open={row.open} onFlip={() => onFlip(row.step)} />;
  const id = `L${row.line.number}`;
  const named = location.hash === `#${id}`;
  return (
    <div className={`log-line ${current || named ? "current" : ""}`} id={id}>
      <a href={`#${id}`} aria-label={`Line ${row.line.number}`}>{row.line.number}</a>
      <code><Text text={row.line.text} wanted={wanted} /></code>
    </div>
  );
}

function StepRow({ step, open, onFlip }: { step: Step; open: boolean; onFlip: () => void }) {
  const now = useNow();
  const state = workState(step.status);
  const words = `${state.word}, ${lengthOf(step.startedAt, step.endedAt ? new Date(step.endedAt) : now)}`;
  return (
    <button type="button" className="log-step" aria-expanded={open} onClick={onFlip}>
      {open ? <ChevronDown size={16} /> : <ChevronRight size={16} />}
      <Glyph shape={state.shape} tone={state.tone} /><b>{step.name}</b><span className="quiet">step {step.position}</span>
      <span className="grow" /><span className="quiet">{words}{step.exitCode ? `, exit status ${step.exitCode}` : ""}</span>
    </button>
  );
}
