import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { componentRuns, pushes, whereabouts } from "../../api/queries";
import { StateWord } from "../../design/Glyph";
import { Loading, Trouble } from "../../design/parts";
import { workState } from "../../design/states";
import { At } from "../../design/time";

/** Every component with its newest runs, and the pushes that started nothing, with the reason. */
export default function Components() {
  const where = useQuery(whereabouts());
  if (where.isPending) return <Loading />;
  if (where.isError) return <Trouble error={where.error} />;
  return (
    <>
      <title>Components · Paseo</title>
      <div className="title-line"><h1>Components</h1><p>Their newest runs, and what pushes led to.</p></div>
      {where.data.rows.map((row) => <Component key={row.component} name={row.component} summary={row.summary} />)}
      {where.data.rows.length === 0 && <p className="empty">No component yet. Register one: paseo component register --help</p>}
    </>
  );
}

function Component({ name, summary }: { name: string; summary: string }) {
  const runs = useQuery(componentRuns(name));
  const seen = useQuery(pushes(name));
  const nothing = seen.data?.filter((push) => push.reason).slice(0, 3) ?? [];
  return (
    <section className="component sheet">
      <header><h2>{name}</h2><p className="quiet">{summary}</p></header>
      <div className="table-scroll" tabIndex={0} role="region" aria-label={`Runs of ${name}`}>
        <table>
          <thead><tr><th>Run</th><th>State</th><th>Commit</th><th>Branch</th><th>Version</th><th>Started</th></tr></thead>
          <tbody>
            {runs.data?.map((run) => (
              <tr key={run.number}>
                <td><Link to={`/runs/${name}/${run.number}`}>#{run.number}</Link></td>
                <td><StateWord state={workState(run.status)} /></td>
                <td className="clip"><code>{run.commit.slice(0, 7)}</code> {run.commitSummary}</td>
                <td>{run.branch}</td>
                <td>{run.sealed ? <Link className="v" to={`/versions/${name}/${run.version}`}>{run.version}</Link> : <span className="quiet">not sealed</span>}</td>
                <td><At time={run.createdAt} /></td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {runs.isError && <p className="bad" role="alert">{runs.error.message}</p>}
      {runs.data?.length === 0 && <p className="quiet">No run yet. Push to a branch that the pipeline file names, or: paseo start {name}</p>}
      {nothing.length > 0 && (
        <ul className="nothing">
          {nothing.map((push) => (
            <li key={push.commit + push.seenAt}>
              <At time={push.seenAt} /> <code>{push.commit.slice(0, 7)}</code> to {push.branch} started nothing: {push.reason}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
