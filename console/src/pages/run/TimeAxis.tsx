import type { Schemas } from "../../api/client";
import { exactOf, lengthOf, useNow } from "../../design/time";
import { keyOf, type Stage } from "./stages";

/** A thin line: nothing is done. */
const WAITS = "h-[3px] bg-line-strong";
const RUNS = "h-2.5 bg-ink-3";
const ENDS = "h-2.5 bg-ink";
const LANE = "grid grid-cols-[minmax(160px,240px)_minmax(0,1fr)_88px] items-center gap-x-4";

interface Span {
  from: string;
  to?: string;
}

/** Where the time of a run went: its turn, each stage with its wait for an agent, each step. */
export default function TimeAxis({ view, onSelect }: { view: Schemas["RunView"]; onSelect: (stage: Stage) => void }) {
  const { run, stages } = view;
  const now = useNow();
  const begin = new Date(run.createdAt).getTime();
  const end = Math.max(begin + 1, run.endedAt ? new Date(run.endedAt).getTime() : now.getTime());
  const share = (time: string | undefined) =>
    Math.min(100, (100 * ((time ? new Date(time).getTime() : end) - begin)) / (end - begin));
  const bar = (span: Span, look: string) => (
    <span
      className={`absolute top-1/2 min-w-[2px] -translate-y-1/2 rounded-[2px] ${look}`}
      style={{ left: `${share(span.from)}%`, width: `${share(span.to) - share(span.from)}%` }}
    />
  );
  const length = (from: string | undefined, to: string | undefined) => {
    if (!from) return "";
    const until = to ? new Date(to) : new Date(end);
    const millis = until.getTime() - new Date(from).getTime();
    return millis < 1000 ? `${Math.max(0, millis)} ms` : lengthOf(from, until);
  };
  return (
    <section aria-label="Times" className="py-4">
      <p className="mt-0 mb-3 flex flex-wrap gap-x-6 text-[13px] text-ink-2">
        <span>
          From {exactOf(run.createdAt)}, {length(run.createdAt, run.endedAt)} in all
        </span>
        <Legend look={WAITS} word="waits for its turn or an agent" />
        <Legend look={RUNS} word="runs" />
        <Legend look={ENDS} word="runs, and the end waited for it" />
      </p>
      {run.startedAt && (
        <div className={`${LANE} py-1`}>
          <span className="text-ink-2">its turn</span>
          <span className="relative h-6 border-x border-line">
            {bar({ from: run.createdAt, to: run.startedAt }, WAITS)}
          </span>
          <span className="text-right text-[13px] text-ink-2">{length(run.createdAt, run.startedAt)}</span>
        </div>
      )}
      {stages.map((stage) => (
        <div key={`${keyOf(stage)}/${stage.attempt}`} className="border-t border-line py-1">
          <div className={LANE}>
            <button
              type="button"
              onClick={() => onSelect(stage)}
              className="cursor-pointer truncate border-0 bg-transparent p-0 text-left font-semibold"
              title={stage.critical ? "The end of the run waited for it" : undefined}
            >
              {keyOf(stage)}
              {stage.attempt > 1 && <span className="font-normal text-ink-2">, attempt {stage.attempt}</span>}
            </button>
            <span className="relative h-6 border-x border-line">
              {stage.readyAt && bar({ from: stage.readyAt, to: stage.startedAt }, WAITS)}
              {stage.startedAt && bar({ from: stage.startedAt, to: stage.endedAt }, stage.critical ? ENDS : RUNS)}
            </span>
            <span className="text-right text-[13px]">
              {stage.startedAt ? length(stage.startedAt, stage.endedAt) : stage.status}
            </span>
          </div>
          {stage.steps.map((step) => (
            <div key={`${step.position}/${step.tried}`} className={LANE}>
              <code className="truncate pl-4 text-[12px] text-ink-2" title={step.name}>
                {step.name}
              </code>
              <span className="relative h-5 border-x border-line">
                {step.startedAt && bar({ from: step.startedAt, to: step.endedAt }, "h-1 bg-ink-3")}
              </span>
              <span className="text-right text-[12px] text-ink-2">{length(step.startedAt, step.endedAt)}</span>
            </div>
          ))}
        </div>
      ))}
    </section>
  );
}

function Legend({ look, word }: { look: string; word: string }) {
  return (
    <span className="flex items-center gap-2">
      <span className={`w-5 rounded-[2px] ${look}`} aria-hidden="true" />
      {word}
    </span>
  );
}
