import { useInfiniteQuery, useQuery } from "@tanstack/react-query";
import { Link, useSearchParams } from "react-router";
import { api, need, type Schemas } from "../../api/client";
import { whereabouts } from "../../api/queries";
import { StateWord } from "../../design/Glyph";
import { Loading, Trouble } from "../../design/parts";
import { deploymentState } from "../../design/states";
import { At } from "../../design/time";
import { asked, FACETS, STATUSES, told, type Facet } from "./facets";

type View = Schemas["DeploymentSummary"];

const PAGE = 50;

/** Every deployment, the newest first; which of them stands in the address. */
export default function Deployments() {
  const [params, setParams] = useSearchParams();
  const facets = asked(params);
  const where = useQuery(whereabouts());
  const list = useInfiniteQuery({
    queryKey: ["deployments", facets],
    initialPageParam: undefined as number | undefined,
    queryFn: ({ pageParam }) =>
      need(api.GET("/api/v1/deployments", { params: { query: { ...facets, before: pageParam, limit: PAGE } } })),
    getNextPageParam: (last: View[]) => (last.length === PAGE ? last.at(-1)?.id : undefined),
  });
  const set = (facet: Facet, value: string) =>
    setParams(
      (now) => {
        if (value) now.set(facet, value);
        else now.delete(facet);
        return now;
      },
      { replace: true },
    );
  const names: Record<Facet, string[]> = {
    component: where.data?.rows.map((row) => row.component) ?? [],
    environment: where.data?.environments.map((each) => each.name) ?? [],
    status: STATUSES,
  };
  const rows = list.data?.pages.flat() ?? [];
  return (
    <>
      <title>Deployments · Paseo</title>
      <div className="title-line">
        <h1>Deployments</h1>
        <p>{told(facets)}</p>
        <form className="title-end where-asks" onSubmit={(event) => event.preventDefault()}>
          {FACETS.map((facet) => (
            <select
              key={facet}
              aria-label={`Of which ${facet}`}
              value={facets[facet] ?? ""}
              onChange={(event) => set(facet, event.target.value)}
            >
              <option value="">any {facet}</option>
              {[...new Set([...names[facet], ...(facets[facet] ? [facets[facet]] : [])])].map((name) => (
                <option key={name}>{name}</option>
              ))}
            </select>
          ))}
        </form>
      </div>
      {list.isPending && <Loading height={520} />}
      {list.isError && <Trouble error={list.error} />}
      {list.data && rows.length === 0 && (
        <p className="quiet pad">
          {Object.keys(facets).length > 0 ? "None is like that." : "Nothing was deployed yet: promote a version."}
        </p>
      )}
      {rows.length > 0 && (
        <section className="sheet p-5">
          <div className="table-scroll" tabIndex={0} role="region" aria-label="Deployments">
            <table className="w-full">
              <thead>
                <tr>
                  <th>Number</th>
                  <th>Version</th>
                  <th>Into</th>
                  <th>Kind</th>
                  <th>State</th>
                  <th>Asked by</th>
                  <th>Asked</th>
                  <th>Live</th>
                </tr>
              </thead>
              <tbody>
                {rows.map((each) => (
                  <Row key={each.id} each={each} />
                ))}
              </tbody>
            </table>
          </div>
          {list.hasNextPage && (
            <button
              type="button"
              className="btn mt-4"
              disabled={list.isFetchingNextPage}
              onClick={() => void list.fetchNextPage()}
            >
              Older
            </button>
          )}
        </section>
      )}
    </>
  );
}

const Row = ({ each }: { each: View }) => (
  <tr>
    <td>
      <Link to={`/deployments/${each.id}`}>{each.id}</Link>
    </td>
    <td>
      {each.component}{" "}
      <Link className="v" to={`/versions/${each.component}/${each.version}`}>
        {each.version}
      </Link>
    </td>
    <td>
      <Link to={`/places/${each.component}/${each.environment}`}>{each.environment}</Link>
    </td>
    <td>
      {each.kind}
      {each.emergency && <b className="warn">, emergency</b>}
    </td>
    <td>
      <StateWord state={deploymentState(each.status)} />
      {each.reason && (
        <div className="quiet max-w-[320px] truncate" title={each.reason}>
          {each.reason}
        </div>
      )}
    </td>
    <td>{each.requestedBy ?? "the walk"}</td>
    <td>
      <At time={each.requestedAt} />
    </td>
    <td>{each.liveAt && <At time={each.liveAt} />}</td>
  </tr>
);
