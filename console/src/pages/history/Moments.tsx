import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, need } from "../../api/client";
import { Loading, Trouble } from "../../design/parts";
import { written } from "../../design/moment";
import { At } from "../../design/time";
import { liveAt, type Lane } from "./lanes";
import { Wide } from "../../design/Wide";

/** What was live in these lanes at a moment. */
export function Then({ moment, lanes }: { moment: string; lanes: Lane[] }) {
  const hosts = useQuery({
    queryKey: ["history", "hosts", moment],
    queryFn: () => need(api.GET("/api/v1/history/hosts", { params: { query: { moment } } })),
  });
  const shown = new Set(lanes.map((lane) => `${lane.component} ${lane.environment}`));
  const on = (lane: Lane) =>
    (hosts.data?.hosts ?? [])
      .filter((each) => each.component === lane.component && each.environment === lane.environment)
      .map((each) => `${each.host} ${each.version}`);
  return (
    <section className="mt-4">
      <h2>
        At <At time={moment} />
      </h2>
      {hosts.isLoadingError && <Trouble error={hosts.error} />}
      <Wide label="What was live then">
        <table>
          <thead>
            <tr>
              <th>Component</th>
              <th>Environment</th>
              <th>Was live</th>
              <th>Since</th>
              <th>Hosts had</th>
            </tr>
          </thead>
          <tbody>
            {lanes.map((lane) => {
              const live = liveAt(lane, new Date(moment).getTime());
              return (
                <tr key={`${lane.component} ${lane.environment}`}>
                  <td>{lane.component}</td>
                  <td>{lane.environment}</td>
                  <td>{live ? <Link to={`/deployments/${live.deployment}`}>{live.version}</Link> : "nothing"}</td>
                  <td>{live && <At time={live.from} />}</td>
                  <td>{hosts.isPending ? "…" : on(lane).join(", ")}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </Wide>
      <p className="text-[13px] text-ink-2 mt-2">
        <Link to={`/?at=${written(new Date(moment))}`}>
          {shown.size > 0 ? "Everything that was live then" : "What was live then"}
        </Link>
      </p>
    </section>
  );
}

/** What is live otherwise at a second moment, everywhere. */
export function Between({ since, until }: { since: string; until: string }) {
  const changes = useQuery({
    queryKey: ["history", "changes", since, until],
    queryFn: () => need(api.GET("/api/v1/history/changes", { params: { query: { since, until } } })),
  });
  return (
    <section className="mt-4">
      <h2>
        Between <At time={since} /> and <At time={until} />, everywhere
      </h2>
      {changes.isPending && <Loading height={120} />}
      {changes.isLoadingError && <Trouble error={changes.error} />}
      {changes.data?.changed.length === 0 && <p className="quiet">Nothing changed: the same was live.</p>}
      {changes.data && changes.data.changed.length > 0 && (
        <Wide label="What changed between the moments">
          <table>
            <thead>
              <tr>
                <th>Component</th>
                <th>Environment</th>
                <th>Was</th>
                <th>Then</th>
                <th>What changed</th>
              </tr>
            </thead>
            <tbody>
              {changes.data.changed.map(({ component, environment, before, after, sameVersion }) => (
                <tr key={`${component} ${environment}`}>
                  <td>{component}</td>
                  <td>{environment}</td>
                  <td>{before?.version ?? "nothing"}</td>
                  <td>{after ? <Link to={`/deployments/${after.deployment}`}>{after.version}</Link> : "nothing"}</td>
                  <td>
                    {sameVersion
                      ? "deployed once more"
                      : before &&
                        after && (
                          <Link to={`/components/${component}/compare?from=${before.version}&to=${after.version}`}>
                            compare
                          </Link>
                        )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </Wide>
      )}
    </section>
  );
}
