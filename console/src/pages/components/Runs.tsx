import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { StateWord } from "../../design/Glyph";
import { workState } from "../../design/states";
import { At } from "../../design/time";
import { Wide } from "../../design/Wide";

/** Runs of a component, the newest first. */
export function Runs({ name, runs }: { name: string; runs: Schemas["RunSummary"][] }) {
  return (
    <Wide label={`Runs of ${name}`}>
      <table>
        <thead>
          <tr>
            <th>Run</th>
            <th>State</th>
            <th>Commit</th>
            <th>Branch</th>
            <th>Version</th>
            <th>Started</th>
          </tr>
        </thead>
        <tbody>
          {runs.map((run) => (
            <tr key={run.number}>
              <td>
                <Link to={`/runs/${name}/${run.number}`}>#{run.number}</Link>
              </td>
              <td>
                <StateWord state={workState(run.status)} />
              </td>
              <td className="clip">
                <code>{run.commit.slice(0, 7)}</code> {run.commitSummary}
              </td>
              <td className="max-w-48 truncate" title={run.branch}>
                {run.branch}
              </td>
              <td>
                {run.sealed ? (
                  <Link className="v" to={`/versions/${name}/${run.version}`}>
                    {run.version}
                  </Link>
                ) : (
                  <span className="quiet">not sealed</span>
                )}
              </td>
              <td>
                <At time={run.createdAt} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Wide>
  );
}
