import { Footprints } from "lucide-react";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { useMay } from "../../api/may";
import { usePromotion } from "../../api/promote";
import { Glyph } from "../../design/Glyph";
import { GateMark, type GateState, type PathKind } from "../../design/Walk";
import { Lozenge } from "../../design/parts";
import { deploymentState, workState, type Phase } from "../../design/states";
import { At, Since } from "../../design/time";
import { MAP_PATH } from "../../design/classes";

const MAP_CELL =
  "[&.gated_.path]:invisible [&.gated]:bg-beyond [&.gated]:border-l [&.gated]:border-l-line " +
  "[&.gated]:pl-7.5 relative pt-4.25 px-0 pb-3.5 " +
  "text-[13px] leading-4.25 text-ink-2 min-w-0 [&_p]:mt-px max-[1080px]:pt-1.5 max-[1080px]:pr-0 " +
  "max-[1080px]:pb-2 max-[1080px]:pl-3.5 max-[1080px]:border-l-3 max-[1080px]:border-l-slab-edge " +
  "max-[1080px]:bg-transparent max-[1080px]:[&.gated]:pt-1.5 max-[1080px]:[&.gated]:pr-0 " +
  "max-[1080px]:[&.gated]:pb-2 max-[1080px]:[&.gated]:pl-3.5 max-[1080px]:[&.gated]:border-l-3 " +
  "max-[1080px]:[&.gated]:border-l-slab-edge max-[1080px]:[&.gated]:bg-transparent";

const MAP_ROW =
  "grid grid-cols-[180px_170px_repeat(calc(var(--columns)_-_1),minmax(190px,1fr))_minmax(250px,1.3fr)] border-t " +
  "border-t-line min-h-26 max-[1080px]:grid-cols-[1fr] max-[1080px]:px-4 max-[1080px]:py-3.5";
const MAP_NAME =
  "pr-3 pl-5 pt-4.5 pb-3 [&_b]:block [&_b]:text-[15px] [&_b]:leading-5 [&_span]:text-[12px] " +
  "[&_span]:leading-[15px] [&_span]:text-ink-3 max-[1080px]:p-0 max-[1080px]:pb-2";
const MAP_GATE =
  "absolute left-0 top-0.5 [transform:translateX(-50%)] [&_svg]:block max-[1080px]:-left-0.5 " +
  "max-[1080px]:-top-8 max-[1080px]:[transform:translateX(-50%)_rotate(90deg)_scale(0.6)]";
const MAP_WORDS = "flex justify-between gap-2 pr-4 [&_p.mark]:flex [&_p.mark]:gap-1.25 [&_p.mark]:items-center";
const AT_GATE = "text-right whitespace-nowrap [&.need_a]:font-[640] [&_span]:block";

const ONTO =
  "btn small self-start opacity-0 group-hover/row:opacity-100 group-focus-within/row:opacity-100 " +
  "[@media(hover:none)]:opacity-100";

type Row = Schemas["RowView"];
type Cell = Schemas["CellView"];
type Column = Schemas["ColumnView"];

const at = (phase: Phase) => (cell?: Cell) => cell?.coming.find((each) => deploymentState(each.status).phase === phase);
const moving = at("moving");
const waiting = at("ahead");

/**
 * The path from a version to the next cell: solid when level, marching when something is on its way, dots when
 * behind.
 */
export function pathTo(version: string | undefined, next: Cell | undefined): PathKind {
  if (!next) return "none";
  if (moving(next)) return "moving";
  return version !== undefined && next.version === version ? "walked" : "ahead";
}

/** The gate before a cell. */
export function gateOf(cell: Cell, before: string | undefined): GateState {
  const waits = waiting(cell);
  if (waits) return waits.forYou ? "person" : "other";
  return moving(cell) || (before !== undefined && cell.version === before) ? "open" : "later";
}

export function MapRow({ row, environments }: { row: Row; environments: Column[] }) {
  const cells = environments.map((each) => row.cells.find((cell) => cell.environment === each.name));
  return (
    <div className={`map-row ${MAP_ROW} group/row`} role="row">
      <div role="rowheader" className={MAP_NAME}>
        <b>{row.component}</b>
        <span>{row.summary}</span>
        {row.stays
          .filter((each) => !environments.some((known) => known.name === each.environment))
          .map((each) => (
            <p key={each.version + each.environment} className="warn stays">
              {each.version} stays: {each.reason}
            </p>
          ))}
      </div>
      <Newest row={row} next={cells[0]} />
      {cells.map((cell, at) => (
        <div role="cell" key={environments[at].name} className={`${MAP_CELL} ${environments[at].gated ? "gated" : ""}`}>
          <span className="hidden text-[12px] font-semibold text-ink-3 max-[1080px]:block">
            {environments[at].name}
          </span>
          {environments[at].gated && cell && (
            <span className={MAP_GATE}>
              <GateMark state={gateOf(cell, cells[at - 1]?.version)} height={46} />
            </span>
          )}
          {cell ? (
            <Place row={row} cell={cell} next={cells[at + 1]} nextGated={environments[at + 1]?.gated ?? false} />
          ) : (
            <p className="quiet">no place here</p>
          )}
          {row.stays
            .filter((each) => each.environment === environments[at].name)
            .map((each) => (
              <p key={each.version} className="warn stays flex items-start gap-1">
                <Glyph shape="warned" tone="warn" />
                <span>
                  <Link to={`/versions/${row.component}/${each.version}`}>{each.version} stays before it</Link>:{" "}
                  {each.reason}
                </span>
              </p>
            ))}
        </div>
      ))}
    </div>
  );
}

function Newest({ row, next }: { row: Row; next: Cell | undefined }) {
  const newest = row.newest;
  if (!newest)
    return (
      <div role="cell" className={MAP_CELL}>
        <p className="quiet">{row.cells.some((cell) => cell.version) ? "built elsewhere" : "nothing built yet"}</p>
      </div>
    );
  const state = workState(newest.status);
  const run = `/runs/${row.component}/${newest.run}`;
  return (
    <div role="cell" className={MAP_CELL}>
      <span className="hidden text-[12px] font-semibold text-ink-3 max-[1080px]:block">newest</span>
      <div className={MAP_PATH}>
        <Lozenge
          to={newest.sealed ? `/versions/${row.component}/${newest.version}` : run}
          glyph={<Glyph shape={state.shape} tone={state.tone} />}
        >
          {newest.sealed ? newest.version : `#${newest.run}`}
        </Lozenge>
        <i className={`path ${pathTo(newest.sealed ? newest.version : undefined, next)}`} />
      </div>
      <p className="pr-4">
        {state.word} <At time={newest.at} />, <Link to={run}>#{newest.run}</Link>
      </p>
      {!newest.sealed && newest.status === "running" && <p className="quiet">will be {newest.version}</p>}
    </div>
  );
}

const hosts = (count: number, one: string, several: string) =>
  `${count} ${count === 1 ? `host ${one}` : `hosts ${several}`}`;

/** What else is to be known of a place, the worst first. */
function Marks({ cell }: { cell: Cell }) {
  const marks = cell.marks;
  if (!marks) return null;
  return (
    <>
      {marks.unhealthy > 0 && (
        <p className="mark bad">
          <Glyph shape="failed" tone="bad" />
          {hosts(marks.unhealthy, "is unhealthy", "are unhealthy")}
        </p>
      )}
      {marks.blocked && (
        <p className="mark bad">
          <Glyph shape="failed" tone="bad" />
          what is live is blocked
        </p>
      )}
      {marks.differing > 0 && (
        <p className="mark warn">
          <Glyph shape="warned" tone="warn" />
          {hosts(marks.differing, "does not have it", "do not have it")}
        </p>
      )}
      {marks.drifted > 0 && (
        <p className="mark warn">
          <Glyph shape="warned" tone="warn" />
          {hosts(marks.drifted, "has drifted", "have drifted")}
        </p>
      )}
      {marks.held && (
        <p className="mark" title={marks.held}>
          <Glyph shape="hold" tone="warn" />
          held
        </p>
      )}
      {marks.away > 0 && <p className="quiet">{hosts(marks.away, "in maintenance", "in maintenance")}</p>}
    </>
  );
}

function Place({ row, cell, next, nextGated }: { row: Row; cell: Cell; next: Cell | undefined; nextGated: boolean }) {
  const on = moving(cell);
  const coming = waiting(next);
  return (
    <>
      <div className={MAP_PATH}>
        {cell.version ? (
          <Lozenge to={`/versions/${row.component}/${cell.version}`} glyph={<Glyph shape="live" tone="good" />}>
            {cell.version}
          </Lozenge>
        ) : (
          <Lozenge kind="ghost">nothing yet</Lozenge>
        )}
        {on && (
          <Lozenge
            kind="moving"
            to={`/deployments/${on.deployment}`}
            glyph={<Glyph shape={deploymentState(on.status).shape} tone="ink" />}
          >
            {on.version}
          </Lozenge>
        )}
        <i className={`path ${pathTo(cell.version, next)}`} />
      </div>
      <div className={MAP_WORDS}>
        <div>
          {cell.since && (
            <p>
              <Link to={`/places/${row.component}/${cell.environment}`}>
                live for <Since time={cell.since} />
              </Link>
            </p>
          )}
          {cell.retired && (
            <p className="mark warn">
              <Glyph shape="warned" tone="warn" />
              retired, and still running
            </p>
          )}
          <Marks cell={cell} />
          {cell.kept && (
            <p className={cell.kept.testFailed ? "mark bad" : "kept"}>
              {cell.kept.testFailed && <Glyph shape="failed" tone="bad" />}
              <Link to={`/passages/${cell.kept.passage}`}>
                {cell.kept.testFailed ? "a test of it failed" : cell.kept.reason.replace(/\.$/, "")}
              </Link>
            </p>
          )}
          {on && (
            <p>
              <Link to={`/deployments/${on.deployment}`}>
                {on.version} {deploymentState(on.status).word}
              </Link>
            </p>
          )}
          {cell.trouble && (
            <p className="bad">
              <Link to={`/deployments/${cell.trouble.deployment}`}>
                {cell.trouble.version} {deploymentState(cell.trouble.status).word}
              </Link>
            </p>
          )}
          {cell.behind > 0 && (
            <p className="flex items-center gap-1.25">
              <Footprints size={14} aria-hidden="true" />
              {cell.behind} {cell.behind === 1 ? "version" : "versions"} behind
              {cell.commitsBehind ? `, ${cell.commitsBehind} ${cell.commitsBehind === 1 ? "commit" : "commits"}` : ""}
              {cell.marks && cell.marks.daysBehind > 0 ? `, ${cell.marks.daysBehind} d` : ""}
            </p>
          )}
        </div>
        <Onto row={row} version={cell.version} next={next} />
        {nextGated && coming && (
          <p className={`${AT_GATE} ${coming.forYou ? "need" : ""}`}>
            <Link to={`/deployments/${coming.deployment}`}>
              {coming.version} {coming.forYou ? "waits for you" : coming.status === "queued" ? "is queued" : "waits"}
            </Link>
            <span className="quiet">{coming.gate}</span>
          </p>
        )}
      </div>
    </>
  );
}

/** What is live here, onto the next stop: seen where one points at the row, or comes to it by keyboard. */
function Onto({ row, version, next }: { row: Row; version: string | undefined; next: Cell | undefined }) {
  const may = useMay();
  const promote = usePromotion();
  if (
    !version ||
    !next ||
    next.retired ||
    next.version === version ||
    next.coming.length > 0 ||
    !may("PROMOTE", { component: row.component, environment: next.environment })
  )
    return null;
  return (
    <button
      type="button"
      className={ONTO}
      aria-label={`Promote ${row.component} ${version} to ${next.environment}`}
      onClick={() => promote(row.component, version, next.environment)}
    >
      {version} to {next.environment}
    </button>
  );
}
