import { useQuery } from "@tanstack/react-query";
import { format } from "date-fns";
import { Link } from "react-router";
import { whereaboutsAt } from "../../api/queries";
import { Loading, Trouble } from "../../design/parts";
import { At } from "../../design/time";
import { between } from "./between";
import { Wide } from "../../design/Wide";
import { PLACE_HISTORY } from "../../design/classes";

interface ThenProps {
  moment: string;
  /** What it is compared with; empty: nothing. */
  other: string;
  filter: string;
}

/** What was live at a past moment, a row for each place; or what changed between two. */
export const Then = ({ moment, other, filter }: ThenProps) =>
  other ? <Between one={moment} other={other} filter={filter} /> : <AtOnce moment={moment} filter={filter} />;

const asIs = (moment: string) => format(moment, "EEE d MMM, HH:mm");

/** Where what was live differs, the earlier moment first. */
function Between({ one, other, filter }: { one: string; other: string; filter: string }) {
  const [first = one, second = other] = [one, other].sort();
  const before = useQuery(whereaboutsAt(new Date(first).toISOString()));
  const after = useQuery(whereaboutsAt(new Date(second).toISOString()));
  if (before.isPending || after.isPending) return <Loading height={300} />;
  if (before.isLoadingError) return <Trouble error={before.error} />;
  if (after.isLoadingError) return <Trouble error={after.error} />;
  const rows = between(before.data, after.data).filter((row) => row.component.includes(filter));
  if (rows.length === 0)
    return (
      <p className="empty">
        The same was live everywhere on {asIs(first)} and on {asIs(second)}. What went and came back between them is in
        the deployments.
      </p>
    );
  const version = (component: string, number: string | undefined) =>
    number ? (
      <Link className="v" to={`/versions/${component}/${number}`}>
        {number}
      </Link>
    ) : (
      <span className="quiet">nothing</span>
    );
  return (
    <section className={`sheet place-history ${PLACE_HISTORY}`} aria-label="What changed between two moments">
      <Wide label="Changes between two moments">
        <table>
          <thead>
            <tr>
              <th>Component</th>
              <th>Environment</th>
              <th>{asIs(first)}</th>
              <th>{asIs(second)}</th>
              <th></th>
            </tr>
          </thead>
          <tbody>
            {rows.map(({ component, environment, before: was, after: is }) => (
              <tr key={`${component} ${environment}`}>
                <td>
                  <b>{component}</b>
                </td>
                <td>
                  <Link to={`/places/${component}/${environment}`}>{environment}</Link>
                </td>
                <td>{version(component, was)}</td>
                <td>{version(component, is)}</td>
                <td>
                  {was && is && (
                    <Link to={`/components/${component}/compare?${new URLSearchParams({ from: was, to: is })}`}>
                      What is between them
                    </Link>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
    </section>
  );
}

function AtOnce({ moment, filter }: { moment: string; filter: string }) {
  const then = useQuery(whereaboutsAt(new Date(moment).toISOString()));
  if (then.isPending) return <Loading height={300} />;
  if (then.isLoadingError) return <Trouble error={then.error} />;
  const rows = then.data.filter((row) => row.component.includes(filter));
  return (
    <section className={`sheet place-history ${PLACE_HISTORY}`} aria-label="What was live then">
      <Wide label="Live then">
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
      </Wide>
      {rows.length === 0 && <p className="quiet pad">Nothing was live then.</p>}
    </section>
  );
}
