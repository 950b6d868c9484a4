import { useQuery } from "@tanstack/react-query";
import { format } from "date-fns";
import { Fragment } from "react";
import { Link, useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { whereabouts } from "../../api/queries";
import { Glyph } from "../../design/Glyph";
import { Loading, Trouble } from "../../design/parts";
import { At } from "../../design/time";
import { grouped, labelNames, matches } from "./labels";
import { MapRow } from "./MapRow";
import { NeedsYou } from "./NeedsYou";
import { Previews } from "./Previews";
import { Then } from "./Then";

type View = Schemas["WhereaboutsView"];
type Row = Schemas["RowView"];

/** Home: every component's walk, a row each; columns are the stops. */
export default function Whereabouts() {
  const where = useQuery(whereabouts());
  const [asked, ask] = useSearchParams();
  const filter = asked.get("component") ?? "";
  const moment = asked.get("at") ?? "";
  const group = asked.get("group") ?? "";
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
  if (where.isError) return <Trouble error={where.error} />;
  return (
    <>
      <title>Whereabouts · Paseo</title>
      <div className="title-line">
        <h1>Whereabouts</h1>
        <p>What is live where, and what stands in its way. {format(new Date(), "EEE d MMM yyyy")}</p>
        <form className="title-end where-asks" onSubmit={(event) => event.preventDefault()}>
          <input
            type="search"
            aria-label="Only components that have this in their name or in a label"
            placeholder="component or label"
            value={filter}
            onChange={(event) => set("component", event.target.value)}
          />
          <GroupBy rows={where.data.rows} label={group} onGroup={(label) => set("group", label)} />
          <input
            type="datetime-local"
            aria-label="What was live at this moment"
            title="What was live then"
            max={format(new Date(), "yyyy-MM-dd'T'HH:mm")}
            value={moment}
            onChange={(event) => set("at", event.target.value)}
          />
          {moment && (
            <button type="button" className="btn small" onClick={() => set("at", "")}>
              Now
            </button>
          )}
        </form>
      </div>
      {moment ? <Then moment={moment} filter={filter} /> : <Now view={where.data} filter={filter} group={group} />}
    </>
  );
}

/** By which label the rows are grouped; nothing where no component has one. */
function GroupBy({ rows, label, onGroup }: { rows: Row[]; label: string; onGroup: (label: string) => void }) {
  const names = labelNames(rows);
  if (names.length === 0) return null;
  return (
    <select aria-label="Group by label" value={label} onChange={(event) => onGroup(event.target.value)}>
      <option value="">not grouped</option>
      {names.map((name) => (
        <option key={name} value={name}>
          by {name}
        </option>
      ))}
    </select>
  );
}

function Now({ view, filter, group }: { view: View; filter: string; group: string }) {
  const rows = view.rows.filter((row) => matches(row, filter));
  return (
    <>
      <NeedsYou rows={rows} />
      {view.rows.length === 0 ? (
        <Nothing />
      ) : rows.length === 0 ? (
        <p className="quiet pad">No component has “{filter}” in its name or in a label.</p>
      ) : (
        <Map view={{ ...view, rows }} group={group} />
      )}
      <Previews />
    </>
  );
}

function Map({ view, group }: { view: View; group: string }) {
  const columns = { "--columns": view.environments.length } as React.CSSProperties;
  return (
    <div className="map sheet" style={columns} role="table" aria-label="Components and environments">
      <div className="map-head" role="row">
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
            <div role="row" className="map-group">
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

const Nothing = () => (
  <div className="empty">
    <h2>No component yet</h2>
    <p>Register one with the client, then push to it:</p>
    <code>paseo component register NAME --repository file:///path/to/repository.git --trusted main</code>
  </div>
);
