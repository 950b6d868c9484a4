import { useVirtualizer } from "@tanstack/react-virtual";
import { ChevronDown, ChevronRight } from "lucide-react";
import { memo, useCallback, useMemo, useRef, useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { Glyph } from "../../design/Glyph";
import { workState } from "../../design/states";
import { PickBox } from "./Picking";
import { linesOf, wordOf, type Line } from "./dense";

type Row = Schemas["RowView"];
type Column = Schemas["ColumnView"];

const HEIGHT = 40;
const TONES: Record<string, string> = {
  need: "text-need font-semibold",
  bad: "text-bad",
  warn: "text-warn",
  good: "text-good",
  ink: "text-ink font-semibold",
};
const HEAD = "sticky top-0 z-20 grid h-9 items-center border-b border-line bg-surface text-[12px] text-ink-3";
const FOLD = "col-span-full flex h-full cursor-pointer items-center gap-2 border-0 bg-sunken px-4 text-left text-ink";
const STUCK = "sticky left-0 z-10 flex items-center gap-2 bg-surface pl-5 pr-3";

interface DenseProps {
  rows: Row[];
  environments: Column[];
  group: string;
}

/** Hundreds of components, a line of 40 pixels each: what is live, and one word of how it stands. */
export function Dense({ rows, environments, group }: DenseProps) {
  const place = useRef<HTMLDivElement>(null);
  const [folded, setFolded] = useState<ReadonlySet<string>>(new Set());
  const lines = useMemo(() => linesOf(rows, group, folded), [rows, group, folded]);
  // eslint-disable-next-line react-hooks/incompatible-library
  const shown = useVirtualizer({
    count: lines.length,
    getScrollElement: () => place.current,
    estimateSize: () => HEIGHT,
    overscan: 12,
    useFlushSync: false,
  });
  const columns = `220px 150px repeat(${environments.length}, minmax(150px, 1fr))`;
  const wide = 370 + environments.length * 150;
  const fold = useCallback(
    (value: string) =>
      setFolded((before) => {
        const after = new Set(before);
        if (!after.delete(value)) after.add(value);
        return after;
      }),
    [],
  );
  return (
    <div
      ref={place}
      role="table"
      aria-label="Components and environments, dense"
      aria-rowcount={lines.length + 1}
      tabIndex={0}
      className="sheet max-h-[calc(100vh-190px)] overflow-auto text-[13px]"
    >
      <div role="row" className={HEAD} style={{ gridTemplateColumns: columns, minWidth: wide }}>
        <span role="columnheader" className={`${STUCK} h-full`}>
          Component
        </span>
        <b role="columnheader" className="text-ink">
          newest
        </b>
        {environments.map((each) => (
          <span role="columnheader" key={each.name} className="truncate pr-3" title={each.closed}>
            <b>
              <Link to={`/environments/${each.name}`}>{each.name}</Link>
            </b>{" "}
            {each.closed && "closed"}
          </span>
        ))}
      </div>
      <div style={{ height: shown.getTotalSize(), minWidth: wide }} className="relative">
        {shown.getVirtualItems().map((item) => (
          <div
            key={item.key}
            role="row"
            aria-rowindex={item.index + 2}
            className="absolute inset-x-0 grid h-10 items-center border-b border-line"
            style={{ gridTemplateColumns: columns, transform: `translateY(${item.start}px)` }}
          >
            <OneLine line={lines[item.index] as Line} group={group} environments={environments} onFold={fold} />
          </div>
        ))}
      </div>
    </div>
  );
}

interface OneLineProps {
  line: Line;
  group: string;
  environments: Column[];
  onFold: (value: string) => void;
}

/** Drawn once, however often the list is scrolled. */
const OneLine = memo(function OneLine({ line, group, environments, onFold }: OneLineProps) {
  if ("head" in line) {
    return (
      <button type="button" className={FOLD} aria-expanded={!line.folded} onClick={() => onFold(line.value)}>
        {line.folded ? <ChevronRight size={14} /> : <ChevronDown size={14} />}
        <b>{line.value ? `${group} ${line.value}` : `no ${group}`}</b>
        <span className="text-ink-2">{line.head}</span>
      </button>
    );
  }
  const { row } = line;
  const cells = environments.map((each) => row.cells.find((cell) => cell.environment === each.name));
  return (
    <>
      <span role="rowheader" className={`${STUCK} h-full`} title={row.summary}>
        <Link to={`/components/${row.component}`} className="truncate font-semibold no-underline hover:underline">
          {row.component}
        </Link>
      </span>
      <span role="cell" className="flex min-w-0 items-center gap-1 pr-3">
        <Newest row={row} />
      </span>
      {cells.map((cell, at) => (
        <span role="cell" key={environments[at]?.name} className="flex min-w-0 items-center gap-2 pr-3">
          {cell ? (
            <Place component={row.component} cell={cell} before={cells[at - 1]?.version} />
          ) : (
            <span className="text-ink-3">–</span>
          )}
        </span>
      ))}
    </>
  );
});

function Newest({ row }: { row: Row }) {
  const newest = row.newest;
  if (!newest) return <span className="text-ink-3">–</span>;
  const state = workState(newest.status);
  return (
    <>
      <Glyph shape={state.shape} tone={state.tone} />
      {newest.sealed && <PickBox component={row.component} version={newest.version} />}
      <Link
        className="v truncate no-underline hover:underline"
        to={newest.sealed ? `/versions/${row.component}/${newest.version}` : `/runs/${row.component}/${newest.run}`}
      >
        {newest.sealed ? newest.version : `#${newest.run}`}
      </Link>
      <span className="sr-only">{state.word}</span>
    </>
  );
}

function Place({
  component,
  cell,
  before,
}: {
  component: string;
  cell: Row["cells"][number];
  before: string | undefined;
}) {
  const { word, tone, more } = wordOf(cell, before);
  const first = cell.coming[0];
  return (
    <>
      {cell.version && <PickBox component={component} version={cell.version} />}
      {cell.version && (
        <Link className="v truncate no-underline hover:underline" to={`/versions/${component}/${cell.version}`}>
          {cell.version}
        </Link>
      )}
      <Link
        to={first ? `/deployments/${first.deployment}` : `/places/${component}/${cell.environment}`}
        title={more || undefined}
        className={`min-w-0 flex-none no-underline hover:underline ${TONES[tone ?? ""] ?? "text-ink-3"}`}
      >
        {word}
      </Link>
    </>
  );
}
