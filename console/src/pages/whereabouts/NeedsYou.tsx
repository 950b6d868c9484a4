import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { WalkRow, type Stop } from "../../design/Walk";
import { Since } from "../../design/time";

type Row = Schemas["RowView"];
type Coming = Schemas["ComingView"];

interface Need {
  row: Row;
  environment: string;
  coming: Coming;
}

/** What waits for the reader, the oldest first; at most three. */
export function NeedsYou({ rows }: { rows: Row[] }) {
  const needs: Need[] = rows
    .flatMap((row) =>
      row.cells.flatMap((cell) => cell.coming.map((coming) => ({ row, environment: cell.environment, coming }))),
    )
    .filter((need) => need.coming.forYou)
    .sort((a, b) => a.coming.requestedAt.localeCompare(b.coming.requestedAt));
  if (needs.length === 0) return null;
  return (
    <section className="needs" aria-label="Needs you">
      <div className="needs-head">
        <span className="needs-dot" aria-hidden="true" />
        Needs you
      </div>
      {needs.slice(0, 3).map((need) => (
        <Card key={need.coming.deployment} need={need} />
      ))}
      {needs.length > 3 && <div className="needs-more">and {needs.length - 3} more</div>}
    </section>
  );
}

function Card({ need: { row, environment, coming } }: { need: Need }) {
  const stops: Pick<Stop, "key" | "state" | "path" | "gate">[] = [{ key: "built", state: "built", path: "walked" }];
  row.cells.forEach((cell, at) => {
    const here = cell.environment === environment;
    const next = row.cells[at + 1]?.environment === environment;
    stops.push({
      key: cell.environment,
      state: here ? "ahead" : "live",
      gate: here ? "person" : undefined,
      path: here ? "none" : next ? "ahead" : "walked",
    });
  });
  return (
    <div className="needs-card">
      <div>
        <p>
          <b>
            {row.component} <span className="v">{coming.version}</span>
          </b>{" "}
          into {environment}
        </p>
        <p className="quiet">
          {coming.gate}, asked by {coming.requestedBy ?? "the walk"} <Since time={coming.requestedAt} /> ago
        </p>
      </div>
      <WalkRow stops={stops} sentence={`${coming.version} waits for you at the gate of ${environment}`} />
      <Link className="btn yes" to={`/deployments/${coming.deployment}`}>
        Decide
      </Link>
    </div>
  );
}
