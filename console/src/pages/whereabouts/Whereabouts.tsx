import { useQuery } from "@tanstack/react-query";
import { format } from "date-fns";
import type { Schemas } from "../../api/client";
import { whereabouts } from "../../api/queries";
import { Glyph } from "../../design/Glyph";
import { Loading, Trouble } from "../../design/parts";
import { At } from "../../design/time";
import { MapRow } from "./MapRow";
import { NeedsYou } from "./NeedsYou";
import { Previews } from "./Previews";

type View = Schemas["WhereaboutsView"];

/** Home: every component's walk, a row each; columns are the stops. */
export default function Whereabouts() {
  const where = useQuery(whereabouts());
  if (where.isPending) return <Loading height={520} />;
  if (where.isError) return <Trouble error={where.error} />;
  return (
    <>
      <title>Whereabouts · Paseo</title>
      <div className="title-line">
        <h1>Whereabouts</h1>
        <p>What is live where, and what stands in its way. {format(new Date(), "EEE d MMM yyyy")}</p>
      </div>
      <NeedsYou rows={where.data.rows} />
      {where.data.rows.length === 0 ? <Nothing /> : <Map view={where.data} />}
      <Previews />
    </>
  );
}

function Map({ view }: { view: View }) {
  const columns = { "--columns": view.environments.length } as React.CSSProperties;
  return (
    <div className="map sheet" style={columns} role="table" aria-label="Components and environments">
      <div className="map-head" role="row">
        <div role="columnheader">Component</div>
        <div role="columnheader"><b>newest</b></div>
        {view.environments.map((each) => (
          <div role="columnheader" key={each.name} className={each.gated ? "gated" : ""}>
            <b>{each.name}</b> <span title={each.closed}>{each.closed ? <><Glyph shape="closed" tone="ice" /> closed{each.closedUntil && <> until <At time={each.closedUntil} /></>}</> : hostWords(each.hosts)}</span>
          </div>
        ))}
      </div>
      {view.rows.map((row) => <MapRow key={row.component} row={row} environments={view.environments} />)}
    </div>
  );
}

const hostWords = (hosts: string[]) => (hosts.length === 1 ? "1 host" : `${hosts.length} hosts`);

const Nothing = () => (
  <div className="empty">
    <h2>No component yet</h2>
    <p>Register one with the client, then push to it:</p>
    <code>paseo component register NAME --repository file:///path/to/repository.git --trusted main</code>
  </div>
);
