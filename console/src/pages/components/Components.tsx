import { useQuery } from "@tanstack/react-query";
import { Plus } from "lucide-react";
import { Link } from "react-router";
import { componentRuns, whereabouts } from "../../api/queries";
import { Loading, Trouble } from "../../design/parts";
import { Nothing } from "./Events";
import { Runs } from "./Runs";

/** Every component with its newest runs, and what started nothing, with the reason. */
export default function Components() {
  const where = useQuery(whereabouts());
  if (where.isPending) return <Loading />;
  if (where.isError) return <Trouble error={where.error} />;
  return (
    <>
      <title>Components · Paseo</title>
      <div className="title-line">
        <h1>Components</h1>
        <p>Their newest runs, and why others did not start.</p>
        <div className="title-action">
          <Link className="btn" to="/bring-in">
            <Plus size={16} />
            Bring in a component
          </Link>
        </div>
      </div>
      {where.data.rows.length === 0 && (
        <p className="empty">
          No component yet. <Link to="/bring-in">Bring in the first one</Link>: point at its repository, and a first
          pipeline file is drafted.
        </p>
      )}
      {where.data.rows.map((row) => (
        <Component key={row.component} name={row.component} summary={row.summary} />
      ))}
    </>
  );
}

function Component({ name, summary }: { name: string; summary: string }) {
  const runs = useQuery(componentRuns(name));
  return (
    <section className="component sheet">
      <header>
        <h2>
          <Link to={`/components/${name}`}>{name}</Link>
        </h2>
        <p className="quiet">{summary}</p>
      </header>
      {runs.data && runs.data.length > 0 && <Runs name={name} runs={runs.data} />}
      {runs.isError && (
        <p className="bad" role="alert">
          {runs.error.message}
        </p>
      )}
      {runs.data?.length === 0 && <p className="quiet">No run yet.</p>}
      <Nothing name={name} />
    </section>
  );
}
