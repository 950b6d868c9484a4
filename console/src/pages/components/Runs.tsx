import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { pushes } from "../../api/queries";
import type { Schemas } from "../../api/client";
import { StateWord } from "../../design/Glyph";
import { workState } from "../../design/states";
import { At } from "../../design/time";

/** Runs of a component, the newest first. */
export function Runs({ name, runs }: { name: string; runs: Schemas["RunSummary"][] }) {
  return (
    <div className="table-scroll" tabIndex={0} role="region" aria-label={`Runs of ${name}`}>
      <table>
        <thead><tr><th>Run</th><th>State</th><th>Commit</th><th>Branch</th><th>Version</th><th>Started</th></tr></thead>
        <tbody>
          {runs.map((run) => (
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
  );
}

/** The newest pushes that started nothing, with the reason. */
export function Nothing({ name }: { name: string }) {
  const seen = useQuery(pushes(name));
  const nothing = seen.data?.filter((push) => push.reason).slice(0, 3) ?? [];
  if (nothing.length === 0) return null;
  return (
    <ul className="nothing">
      {nothing.map((push) => (
        <li key={push.commit + push.seenAt}>
          <At time={push.seenAt} /> <code>{push.commit.slice(0, 7)}</code> to {push.branch} started nothing: {push.reason}
        </li>
      ))}
    </ul>
  );
}
