import { useInfiniteQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, need, type Schemas } from "../../api/client";
import { StateWord } from "../../design/Glyph";
import { deploymentState } from "../../design/states";
import { At } from "../../design/time";
import { pageOf, sinceOf, type Facet } from "./facets";
import { useFacets } from "./FacetForm";
import { List } from "./List";

type View = Schemas["DeploymentSummary"];

const PAGE = 50;
const FACETS: Facet[] = ["component", "environment", "status", "by", "since", "first"];

/** Every deployment, the newest first, or the oldest. */
export default function Deployments() {
  const [{ since, first, ...asks }] = useFacets(FACETS);
  const list = useInfiniteQuery({
    queryKey: ["deployments", asks, since, first],
    initialPageParam: undefined as number | undefined,
    queryFn: ({ pageParam }) =>
      need(
        api.GET("/api/v1/deployments", {
          params: { query: { ...asks, since: sinceOf(since, Date.now()), ...pageOf(first, pageParam), limit: PAGE } },
        }),
      ),
    getNextPageParam: (last: View[]) => (last.length === PAGE ? last.at(-1)?.id : undefined),
    select: (data) => data.pages.flat(),
  });
  return (
    <List
      title="Deployments"
      facets={FACETS}
      list={list}
      dated="Asked"
      head={[
        ["Number", 7],
        ["Version", 18],
        ["Into", 11],
        ["Kind", 12],
        ["State", 18],
        ["Asked by", 12],
        ["Asked", 11],
        ["Live", 11],
      ]}
      empty="Nothing was deployed yet: promote a version."
      row={(each) => (
        <tr key={each.id}>
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
              <div className="quiet truncate" title={each.reason}>
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
      )}
    />
  );
}
