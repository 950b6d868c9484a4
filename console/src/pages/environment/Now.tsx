import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, need } from "../../api/client";
import { whereabouts } from "../../api/queries";
import { Glyph, StateWord } from "../../design/Glyph";
import { Lozenge } from "../../design/parts";
import { deploymentState } from "../../design/states";
import { At, Since } from "../../design/time";
import { Wide } from "../../design/Wide";
import { SECTION_HEAD } from "../../design/classes";

/** What was deployed there last, and where its hosts and values are. */
export function Lately({ name }: { name: string }) {
  const list = useQuery({
    queryKey: ["deployments", { environment: name }, "newest"],
    queryFn: () => need(api.GET("/api/v1/deployments", { params: { query: { environment: name, limit: 8 } } })),
  });
  return (
    <section className="sheet pad" aria-label="Lately">
      <div className={SECTION_HEAD}>
        <h2>Lately</h2>
        <span className="ml-auto flex gap-2 self-center">
          <Link to={`/deployments?environment=${encodeURIComponent(name)}`}>All</Link>
          <Link to="/settings/hosts">Hosts</Link>
          <Link to="/settings/values">Variables and secrets</Link>
        </span>
      </div>
      {list.data?.length === 0 && <p className="quiet">Nothing was deployed here yet.</p>}
      <ul className="m-0 list-none p-0">
        {list.data?.map((each) => (
          <li key={each.id} className="flex flex-wrap items-baseline gap-x-3 border-t border-line py-2 text-[13px]">
            <Link to={`/deployments/${each.id}`}>
              {each.component} <span className="v">{each.version}</span>
            </Link>
            <StateWord state={deploymentState(each.status)} />
            <span className="quiet">by {each.requestedBy ?? "the walk"}</span>
            <span className="quiet ml-auto">
              <At time={each.requestedAt} />
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

export function Now({ name }: { name: string }) {
  const where = useQuery(whereabouts());
  const rows =
    where.data?.rows.flatMap((row) =>
      row.cells.filter((cell) => cell.environment === name).map((cell) => ({ component: row.component, cell })),
    ) ?? [];
  const closed = where.data?.environments.find((each) => each.name === name);
  return (
    <section className="sheet pad" aria-label="Now">
      <h2 className="mb-2">Now</h2>
      {closed?.closed && (
        <p className="flex gap-2 items-center py-1.5">
          <Glyph shape="closed" tone="ice" />{" "}
          <span>
            Closed{closed.closedByCalendar && " by its calendar"}
            {closed.closedUntil && (
              <>
                {" "}
                until <At time={closed.closedUntil} />
              </>
            )}
            : “{closed.closed}”
          </span>
        </p>
      )}
      <Wide label="What is live here">
        <table>
          <thead>
            <tr>
              <th>Component</th>
              <th>Live</th>
              <th>For</th>
              <th>On its way</th>
            </tr>
          </thead>
          <tbody>
            {rows.map(({ component, cell }) => (
              <tr key={component}>
                <td>
                  <Link to={`/places/${component}/${name}`}>{component}</Link>
                </td>
                <td>
                  {cell.version ? (
                    <Lozenge to={`/versions/${component}/${cell.version}`} glyph={<Glyph shape="live" tone="good" />}>
                      {cell.version}
                    </Lozenge>
                  ) : (
                    <span className="quiet">nothing</span>
                  )}
                </td>
                <td>{cell.since && <Since time={cell.since} />}</td>
                <td>
                  {cell.coming.map((each) => (
                    <Link key={each.deployment} to={`/deployments/${each.deployment}`}>
                      {each.version} {deploymentState(each.status).word}
                    </Link>
                  ))}
                  {cell.marks?.held && <span className="quiet"> held</span>}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
      {where.data && rows.length === 0 && <p className="quiet">No component has a place here.</p>}
    </section>
  );
}
