import { useQuery } from "@tanstack/react-query";
import { useVirtualizer } from "@tanstack/react-virtual";
import { Plus } from "lucide-react";
import { useDeferredValue, useRef } from "react";
import { Link, useSearchParams } from "react-router";
import { useMay } from "../../api/may";
import type { Schemas } from "../../api/client";
import { newestRuns, whereabouts } from "../../api/queries";
import { StateWord } from "../../design/Glyph";
import { Loading, Trouble } from "../../design/parts";
import { Search } from "../../design/Search";
import { workState } from "../../design/states";
import { At } from "../../design/time";
import { RUN_STATUSES } from "../lists/facets";
import { Views } from "../lists/Views";
import { nameOf, SORTS, sorted, type Line, type Sort } from "./lines";
import { TITLE_END } from "../../design/classes";

const HEIGHT = 56;
const COLUMNS = "minmax(200px, 1.1fr) 150px minmax(220px, 1.1fr) 130px minmax(260px, 1.4fr)";
const HEAD =
  "sticky top-0 z-20 grid h-9 min-w-[960px] items-center border-b border-line bg-surface pl-5 text-[12px] " +
  "text-ink-3";
const howMany = (shown: number, all: number) => (shown === all ? all : `${shown} of ${all}`);
const CELL = "flex min-w-0 flex-col justify-center pr-4";

/** Every component: its newest run and version, and where it is live. */
export default function Components() {
  const where = useQuery(whereabouts());
  const newest = useQuery(newestRuns());
  const [asks, setAsks] = useSearchParams();
  const brings = useMay()("REGISTER_COMPONENT");
  const text = asks.get("text") ?? "";
  const status = asks.get("status") ?? "";
  const sort = (asks.get("sort") ?? "name") as Sort;
  const lines = useDeferredValue(
    where.data ? sorted(where.data.rows, newest.data ?? new Map(), { text, status, sort }) : [],
  );
  const set = (name: string, value: string) =>
    setAsks(
      (now) => {
        if (value) now.set(name, value);
        else now.delete(name);
        return now;
      },
      { replace: true },
    );
  if (where.isPending) return <Loading />;
  if (where.isLoadingError) return <Trouble whole error={where.error} />;
  return (
    <>
      <title>Components · Paseo</title>
      <div className="title-line">
        <h1>Components</h1>
        <p>
          {howMany(lines.length, where.data.rows.length)}.{" "}
          <Link className="mr-3" to="/runs">
            All runs
          </Link>
          <Link to="/versions">All versions</Link>
        </p>
        <div className={`${TITLE_END} flex gap-2`}>
          <Views />
          {brings && (
            <Link className="btn" to="/bring-in">
              <Plus size={16} />
              Bring in a component
            </Link>
          )}
        </div>
      </div>
      {where.data.rows.length === 0 ? (
        <p className="empty">
          No component yet.{" "}
          {brings ? (
            <>
              <Link to="/bring-in">Bring in the first one</Link>: point at its repository, and a first pipeline file is
              drafted.
            </>
          ) : (
            "Whoever may register components brings in the first one."
          )}
        </p>
      ) : (
        <>
          <form className="mb-4 flex flex-wrap items-center gap-2" onSubmit={(event) => event.preventDefault()}>
            <Search
              label="Only components that have this in their name or in a label"
              placeholder="component or label"
              value={text}
              onType={(typed) => set("text", typed)}
            />
            <select
              aria-label="State of the newest run"
              value={status}
              onChange={(event) => set("status", event.target.value)}
            >
              <option value="">newest run in any state</option>
              {RUN_STATUSES.map((each) => (
                <option key={each} value={each}>
                  newest run {each}
                </option>
              ))}
            </select>
            <select aria-label="In which order" value={sort} onChange={(event) => set("sort", event.target.value)}>
              {SORTS.map(([value, word]) => (
                <option key={value} value={value === "name" ? "" : value}>
                  {word}
                </option>
              ))}
            </select>
          </form>
          {lines.length === 0 ? <p className="empty">None is like that.</p> : <Table lines={lines} />}
        </>
      )}
    </>
  );
}

function Table({ lines }: { lines: Line[] }) {
  const place = useRef<HTMLDivElement>(null);
  // eslint-disable-next-line react-hooks/incompatible-library
  const shown = useVirtualizer({
    count: lines.length,
    getScrollElement: () => place.current,
    estimateSize: () => HEIGHT,
    overscan: 10,
    useFlushSync: false,
  });
  return (
    <div
      ref={place}
      role="table"
      aria-label="Components"
      aria-rowcount={lines.length + 1}
      tabIndex={0}
      className="sheet mb-4 max-h-[calc(100vh-230px)] overflow-auto text-[13px]"
    >
      <div role="row" className={HEAD} style={{ gridTemplateColumns: COLUMNS }}>
        {["Component", "Newest run", "Commit", "Newest version", "Live"].map((each) => (
          <span key={each} role="columnheader">
            {each}
          </span>
        ))}
      </div>
      <div style={{ height: shown.getTotalSize() }} className="relative min-w-[960px]">
        {shown.getVirtualItems().map((item) => (
          <div
            key={item.key}
            role="row"
            aria-rowindex={item.index + 2}
            className="absolute inset-x-0 grid items-center border-b border-line pl-5"
            style={{ height: HEIGHT, gridTemplateColumns: COLUMNS, transform: `translateY(${item.start}px)` }}
          >
            <OneLine {...(lines[item.index] as Line)} />
          </div>
        ))}
      </div>
    </div>
  );
}

function OneLine({ row, run }: Line) {
  return (
    <>
      <span role="rowheader" className={CELL}>
        <Link to={`/components/${row.component}`} className="truncate font-semibold">
          {row.component}
        </Link>
        <span className="quiet truncate" title={row.summary}>
          {row.summary}
        </span>
      </span>
      <span role="cell" className={CELL}>
        {run ? (
          <>
            <StateWord state={workState(run.status)} />
            <span className="quiet truncate">
              <Link to={`/runs/${run.component}/${run.number}`}>#{run.number}</Link> <At time={run.createdAt} />
            </span>
          </>
        ) : (
          <span className="quiet">no run yet</span>
        )}
      </span>
      <span role="cell" className={CELL}>
        {run && (
          <>
            <span className="truncate" title={run.commitSummary}>
              <code>{run.commit.slice(0, 7)}</code> {run.commitSummary}
            </span>
            <span className="quiet truncate">{run.reason ?? `by ${nameOf(run.commitAuthor)}`}</span>
          </>
        )}
      </span>
      <span role="cell" className={CELL}>
        {row.newest ? (
          <Link className="v truncate" to={`/versions/${row.component}/${row.newest.version}`}>
            {row.newest.version}
          </Link>
        ) : (
          <span className="quiet">{row.cells.some((cell) => cell.version) ? "built elsewhere" : "none"}</span>
        )}
      </span>
      <span
        role="cell"
        className="min-w-0 truncate pr-4"
        title={row.cells
          .filter((cell) => cell.version)
          .map((cell) => `${cell.environment} ${cell.version}`)
          .join(", ")}
      >
        <Live cells={row.cells} component={row.component} />
      </span>
    </>
  );
}

function Live({ cells, component }: { cells: Schemas["CellView"][]; component: string }) {
  const live = cells.filter((cell) => cell.version);
  if (live.length === 0) return <span className="quiet">nowhere</span>;
  return live.map((cell) => (
    <Link key={cell.environment} className="mr-3 no-underline" to={`/places/${component}/${cell.environment}`}>
      <span className="quiet">{cell.environment}</span> <span className="v">{cell.version}</span>
    </Link>
  ));
}
