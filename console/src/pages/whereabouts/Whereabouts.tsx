import { useQuery } from "@tanstack/react-query";
import { Fragment, lazy, Suspense, type ReactNode } from "react";
import { Link, useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { useMay } from "../../api/may";
import { whereabouts } from "../../api/queries";
import { Glyph } from "../../design/Glyph";
import { Moment } from "../../design/Moment";
import { Loading, Trouble } from "../../design/parts";
import { Search } from "../../design/Search";
import { At } from "../../design/time";
import { Views } from "../lists/Views";
import { Dense } from "./Dense";
import { differs, isMine } from "./dense";
import { grouped, labelNames, matches } from "./labels";
import { MapRow } from "./MapRow";
import { Picking } from "./Picking";
import { NeedsYou } from "./NeedsYou";
import { Previews } from "./Previews";
import { TITLE_END, WHERE_ASKS } from "../../design/classes";

const MAP_HEAD =
  "grid grid-cols-[180px_170px_repeat(calc(var(--columns)_-_1),minmax(190px,1fr))_minmax(250px,1.3fr)] h-10 " +
  "items-center text-[12px] text-ink-3 [&>div]:pl-5 [&>div]:h-full [&>div]:flex [&>div]:items-center " +
  "[&>div]:gap-2 [&>div+div]:pl-0 [&_b]:text-[14px] [&_b]:text-ink [&_b]:[font-stretch:106%] " +
  "[&>div>span]:inline-flex [&>div>span]:items-center [&>div>span]:gap-1.25 [&_.gated]:bg-beyond " +
  "[&_.gated]:border-l [&_.gated]:border-l-line [&_.gated]:pl-7.5 max-[1080px]:hidden";

const MAP_GROUP = "px-5 py-2.25 border-t border-t-line bg-sunken text-[13px]";

/** What whoever looks at now does not need. */
const Then = lazy(() => import("./Then").then((part) => ({ default: part.Then })));
const FirstHours = lazy(() => import("./FirstHours").then((part) => ({ default: part.FirstHours })));

/** So many walks are drawn; whoever has more filters them, or sees them dense. */
const WALKS = 60;

type View = Schemas["WhereaboutsView"];
type Row = Schemas["RowView"];

/** Home: every component's walk, a row each; columns are the stops. */
export default function Whereabouts() {
  const where = useQuery(whereabouts());
  const [asked, ask] = useSearchParams();
  const filter = asked.get("component") ?? "";
  const moment = asked.get("at") ?? "";
  const other = asked.get("with") ?? "";
  const group = asked.get("group") ?? "";
  const dense = asked.get("shown") === "dense";
  const only = asked.get("only") ?? "";
  const picking = dense && asked.has("pick");
  const may = useMay();
  const set = (name: string, value: string) =>
    ask(
      (now) => {
        if (value) now.set(name, value);
        else now.delete(name);
        return now;
      },
      { replace: true },
    );
  if (where.isPending) return <Loading height={520} />;
  if (where.isLoadingError) return <Trouble whole error={where.error} />;
  return (
    <>
      <title>Whereabouts · Paseo</title>
      <div className="title-line">
        <h1>Whereabouts</h1>
        <p>
          What is live where, and what stands in its way. <Link to="/deployments">All deployments</Link>
        </p>
        <form className={`${TITLE_END} ${WHERE_ASKS}`} onSubmit={(event) => event.preventDefault()}>
          <Search
            label="Only components that have this in their name or in a label"
            placeholder="component or label"
            value={filter}
            onType={(text) => set("component", text)}
          />
          <Choose
            label="How it is shown"
            value={dense ? "dense" : ""}
            of={[
              ["", "as walks"],
              ["dense", "dense"],
            ]}
            onChoose={(value) => set("shown", value)}
          />
          {dense && (
            <Choose
              label="Which of them"
              value={only}
              of={[
                ["", "all"],
                ["differs", "only what differs"],
                ["mine", "only what waits for you"],
              ]}
              onChoose={(value) => set("only", value)}
            />
          )}
          <GroupBy rows={where.data.rows} label={group} onGroup={(label) => set("group", label)} />
          {dense && !picking && where.data.rows.length > 1 && may("PROMOTE") && (
            <button type="button" className="btn small" onClick={() => set("pick", "set")}>
              Pick a set
            </button>
          )}
          <Moment label="What was live then" value={moment} none="Now" onChoose={(value) => set("at", value)} />
          {moment && (
            <Moment
              label="Compared with what was live then"
              value={other}
              none="compared with nothing"
              onChoose={(value) => set("with", value)}
            />
          )}
          <Views small />
        </form>
      </div>
      {moment ? (
        <Suspense fallback={<Loading />}>
          <Then key={other} moment={moment} other={other} filter={filter} />
        </Suspense>
      ) : (
        <Now
          view={where.data}
          filter={filter}
          group={group}
          dense={dense}
          only={only}
          onEndPicking={picking ? () => set("pick", "") : undefined}
        />
      )}
    </>
  );
}

interface ChooseProps {
  label: string;
  value: string;
  of: [value: string, word: string][];
  onChoose: (value: string) => void;
}

const Choose = ({ label, value, of, onChoose }: ChooseProps) => (
  <select aria-label={label} value={value} onChange={(event) => onChoose(event.target.value)}>
    {of.map(([each, word]) => (
      <option key={each} value={each}>
        {word}
      </option>
    ))}
  </select>
);

/** By which label the rows are grouped; nothing where no component has one. */
function GroupBy({ rows, label, onGroup }: { rows: Row[]; label: string; onGroup: (label: string) => void }) {
  const names = labelNames(rows);
  if (names.length === 0) return null;
  return (
    <Choose
      label="Group by label"
      value={label}
      of={[["", "not grouped"], ...names.map((name): [string, string] => [name, `by ${name}`])]}
      onChoose={onGroup}
    />
  );
}

interface NowProps {
  view: View;
  filter: string;
  group: string;
  dense: boolean;
  only: string;
  /** While versions are picked for a set. */
  onEndPicking: (() => void) | undefined;
}

function Now({ view, filter, group, dense, only, onEndPicking }: NowProps) {
  const chosen = !dense ? () => true : only === "differs" ? differs : only === "mine" ? isMine : () => true;
  const rows = view.rows.filter((row) => matches(row, filter) && chosen(row));
  return (
    <>
      <NeedsYou rows={rows} />
      {view.rows.length < 2 && (
        <Suspense fallback={null}>
          <FirstHours environments={view.environments.length} components={view.rows.length} />
        </Suspense>
      )}
      {view.rows.length === 0 ? null : rows.length === 0 ? (
        <p className="quiet pad">
          {filter ? `No component has “${filter}” in its name or in a label.` : "Nothing differs, and nothing waits."}
        </p>
      ) : dense ? (
        pickable(<Dense rows={rows} environments={view.environments} group={group} />, onEndPicking)
      ) : (
        <>
          <Map view={{ ...view, rows: rows.slice(0, WALKS) }} group={group} />
          {rows.length > WALKS && (
            <p className="quiet pad">
              {rows.length - WALKS} more are not drawn as walks: <Link to="?shown=dense">see all of them dense</Link>,
              or filter them.
            </p>
          )}
        </>
      )}
      {view.next && (
        <p className="quiet pad" role="status">
          {view.rows.length} components so far; the others are on their way.
        </p>
      )}
      <Previews />
    </>
  );
}

const pickable = (list: ReactNode, onEnd: (() => void) | undefined) =>
  onEnd ? <Picking onEnd={onEnd}>{list}</Picking> : list;

function Map({ view, group }: { view: View; group: string }) {
  const columns = { "--columns": view.environments.length } as React.CSSProperties;
  return (
    <div className="overflow-hidden sheet" style={columns} role="table" aria-label="Components and environments">
      <div className={MAP_HEAD} role="row">
        <div role="columnheader">Component</div>
        <div role="columnheader">
          <b>newest</b>
        </div>
        {view.environments.map((each) => (
          <div role="columnheader" key={each.name} className={each.gated ? "gated" : ""}>
            <b>
              <Link to={`/environments/${each.name}`}>{each.name}</Link>
            </b>{" "}
            <span title={each.closed}>
              {each.closed ? (
                <>
                  <Glyph shape="closed" tone="ice" /> closed
                  {each.closedUntil && (
                    <>
                      {" "}
                      until <At time={each.closedUntil} />
                    </>
                  )}
                </>
              ) : (
                hostWords(each.hosts)
              )}
            </span>
          </div>
        ))}
      </div>
      {grouped(view.rows, group).map((part) => (
        <Fragment key={part.value}>
          {group && (
            <div role="row" className={MAP_GROUP}>
              <div role="rowheader">
                {part.value ? (
                  <>
                    {group} <b>{part.value}</b>
                  </>
                ) : (
                  `no ${group}`
                )}{" "}
                <span className="quiet">
                  {part.rows.length === 1 ? "1 component" : `${part.rows.length} components`}
                </span>
              </div>
            </div>
          )}
          {part.rows.map((row) => (
            <MapRow key={row.component} row={row} environments={view.environments} />
          ))}
        </Fragment>
      ))}
    </div>
  );
}

const hostWords = (hosts: number) => (hosts === 1 ? "1 host" : `${hosts} hosts`);
