import { useInfiniteQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, need } from "../../api/client";
import { At } from "../../design/time";
import { pageOf, sinceOf, type Facet } from "./facets";
import { useFacets } from "./FacetForm";
import { List } from "./List";

const FACETS: Facet[] = ["component", "environment", "branch", "blocked", "label", "since", "first"];

/** Every version, the newest first, or the oldest. */
export default function Versions() {
  const [{ since, first, blocked, ...asks }] = useFacets(FACETS);
  const list = useInfiniteQuery({
    queryKey: ["versions", asks, blocked, since, first],
    initialPageParam: undefined as number | undefined,
    queryFn: ({ pageParam }) =>
      need(
        api.GET("/api/v1/versions", {
          params: {
            query: {
              ...asks,
              blocked: blocked ? blocked === "true" : undefined,
              since: sinceOf(since, Date.now()),
              ...pageOf(first, pageParam),
            },
          },
        }),
      ),
    getNextPageParam: (last) => last.next,
    select: (data) => data.pages.flatMap((page) => page.versions),
  });
  return (
    <List
      title="Versions"
      facets={FACETS}
      list={list}
      dated="Sealed"
      head={[
        ["Version", 20],
        ["Live in", 16],
        ["Branch", 14],
        ["Commit", 28],
        ["Built by", 9],
        ["Sealed", 13],
      ]}
      empty="Nothing was sealed yet: the first run that passes seals a version."
      row={(version) => (
        <tr key={`${version.component} ${version.number}`}>
          <td>
            <Link to={`/components/${version.component}`}>{version.component}</Link>{" "}
            <Link className="v" to={`/versions/${version.component}/${version.number}`}>
              {version.number}
            </Link>
            {version.blocked && <b className="bad"> blocked</b>}
          </td>
          <td>
            {version.live.map((each) => (
              <Link key={each} className="mr-2" to={`/places/${version.component}/${each}`}>
                {each}
              </Link>
            ))}
            {version.live.length === 0 && <span className="quiet">nowhere</span>}
          </td>
          <td className="truncate" title={version.branch}>
            {version.branch}
            {!version.trusted && <span className="quiet">, not trusted</span>}
          </td>
          <td>
            {version.commit && (
              <div className="truncate" title={version.commitSummary}>
                <code>{version.commit.slice(0, 7)}</code> {version.commitSummary}
              </div>
            )}
          </td>
          <td>
            {version.run ? (
              <Link to={`/runs/${version.component}/${version.run}`}>#{version.run}</Link>
            ) : (
              <span className="quiet">elsewhere</span>
            )}
          </td>
          <td>
            <At time={version.sealedAt} />
          </td>
        </tr>
      )}
    />
  );
}
