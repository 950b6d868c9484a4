import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { WalkRow, type Stop } from "../../design/Walk";
import { Since } from "../../design/time";

const NEEDS =
  "flex flex-wrap bg-need-soft border border-need-line rounded-[var(--r-2)] mb-4.5 [box-shadow:var(--shade-1)] " +
  "[--gbg:var(--need-soft)] max-[720px]:[&_.walk-row]:hidden";
const NEEDS_HEAD =
  "flex items-center gap-2.5 px-5 text-need font-[640] text-[16px] font-stretch-[108%] max-[1080px]:px-4 " +
  "max-[1080px]:py-2.5";
const NEEDS_DOT = "w-2.75 h-2.75 rounded-full bg-need [box-shadow:0_-9px_0_-4px_var(--need),0_9px_0_-4px_var(--need)]";
const NEEDS_CARD =
  "flex items-center gap-5 flex-1 min-w-95 pr-4 pl-5 py-2.75 border-l border-l-need-line text-ink " +
  "[&>div]:flex-1 [&_p]:text-[13px] [&_p]:leading-[18px] [&_.quiet]:text-ink-2 max-[1080px]:min-w-0 " +
  "max-[1080px]:basis-full max-[1080px]:border-l-0 max-[1080px]:border-t max-[1080px]:border-t-need-line";

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
    <section className={NEEDS} aria-label="Needs you">
      <div className={NEEDS_HEAD}>
        <span className={NEEDS_DOT} aria-hidden="true" />
        Needs you
      </div>
      {needs.slice(0, 3).map((need) => (
        <Card key={need.coming.deployment} need={need} />
      ))}
      {needs.length > 3 && <div className="p-5 text-need">and {needs.length - 3} more</div>}
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
    <div className={NEEDS_CARD}>
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
