import { useInfiniteQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, need } from "../../api/client";
import { StateWord } from "../../design/Glyph";
import { workState } from "../../design/states";
import { At, lengthOf } from "../../design/time";
import { nameOf } from "../components/lines";
import { pageOf, sinceOf, type Facet } from "./facets";
import { useFacets } from "./FacetForm";
import { List } from "./List";

const FACETS: Facet[] = ["component", "status", "branch", "author", "label", "since", "first"];

/** Every run, the newest first, or the oldest. */
export default function Runs() {
  const [{ since, first, ...asks }] = useFacets(FACETS);
  const list = useInfiniteQuery({
    queryKey: ["runs", asks, since, first],
    initialPageParam: undefined as number | undefined,
    queryFn: ({ pageParam }) =>
      need(
        api.GET("/api/v1/runs", {
          params: { query: { ...asks, since: sinceOf(since, Date.now()), ...pageOf(first, pageParam) } },
        }),
      ),
    getNextPageParam: (last) => last.next,
    select: (data) => data.pages.flatMap((page) => page.runs),
  });
  return (
    <List
      title="Runs"
      facets={FACETS}
      statuses="runs"
      list={list}
      dated="Began"
      head={[
        ["Run", 15],
        ["State", 14],
        ["Branch", 12],
        ["Commit", 27],
        ["Version", 10],
        ["Began", 13],
        ["Took", 9],
      ]}
      empty="Nothing ran yet: push to a component, or start one."
      row={(run) => (
        <tr key={`${run.component}#${run.number}`}>
          <td>
            <Link to={`/runs/${run.component}/${run.number}`}>
              {run.component}#{run.number}
            </Link>
          </td>
          <td>
            <StateWord state={workState(run.status)} />
            {run.reason && (
              <div className="quiet truncate" title={run.reason}>
                {run.reason}
              </div>
            )}
          </td>
          <td className="truncate" title={run.branch}>
            {run.branch}
          </td>
          <td>
            <div className="truncate" title={`${run.commitSummary}, by ${run.commitAuthor}`}>
              <code>{run.commit.slice(0, 7)}</code> {run.commitSummary}{" "}
              <span className="quiet">{nameOf(run.commitAuthor)}</span>
            </div>
          </td>
          <td>
            {run.sealed ? (
              <Link className="v" to={`/versions/${run.component}/${run.version}`}>
                {run.version}
              </Link>
            ) : (
              <span className="quiet">not sealed</span>
            )}
          </td>
          <td>{run.startedAt ? <At time={run.startedAt} /> : <span className="quiet">not yet</span>}</td>
          <td>{run.startedAt && run.endedAt && lengthOf(run.startedAt, new Date(run.endedAt))}</td>
        </tr>
      )}
    />
  );
}
