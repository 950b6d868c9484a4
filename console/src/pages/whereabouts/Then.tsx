import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { whereaboutsAt } from "../../api/queries";
import { Loading, Trouble } from "../../design/parts";
import { At } from "../../design/time";

/** What was live at a past moment, a row for each place. */
export function Then({ moment, filter }: { moment: string; filter: string }) {
  const then = useQuery(whereaboutsAt(new Date(moment).toISOString()));
  if (then.isPending) return <Loading height={300} />;
  if (then.isLoadingError) return <Trouble error={then.error} />;
  const rows = then.data.filter((row) => row.component.includes(filter));
  return (
    <section className="sheet place-history" aria-label="What was live then">
      <div className="scroll">
        <table>
          <thead>
            <tr>
              <th>Component</th>
              <th>Environment</th>
              <th>Was live</th>
              <th>Since</th>
              <th>Until</th>
              <th>By deployment</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <tr key={`${row.component} ${row.environment}`}>
                <td>
                  <b>{row.component}</b>
                </td>
                <td>
                  <Link to={`/places/${row.component}/${row.environment}`}>{row.environment}</Link>
                </td>
                <td>
                  <Link className="v" to={`/versions/${row.component}/${row.version}`}>
                    {row.version}
                  </Link>
                </td>
                <td>
                  <At time={row.since} />
                </td>
                <td>{row.until ? <At time={row.until} /> : "still"}</td>
                <td>
                  <Link to={`/deployments/${row.deployment}`}>{row.deployment}</Link>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {rows.length === 0 && <p className="quiet pad">Nothing was live then.</p>}
    </section>
  );
}
