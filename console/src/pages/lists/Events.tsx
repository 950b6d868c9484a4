import { useInfiniteQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, need } from "../../api/client";
import { At } from "../../design/time";
import { Considered, sentenceOf } from "../components/Events";
import { pageOf, sinceOf, type Facet } from "./facets";
import { useFacets } from "./FacetForm";
import { List } from "./List";

const FACETS: Facet[] = ["component", "kind", "started", "branch", "by", "label", "since", "first"];

/** Everything that happened, the newest first, or the oldest, and what each trigger made of it. */
export default function Events() {
  const [{ since, first, started, ...asks }] = useFacets(FACETS);
  const list = useInfiniteQuery({
    queryKey: ["events", "all", asks, started, since, first],
    initialPageParam: undefined as number | undefined,
    queryFn: ({ pageParam }) =>
      need(
        api.GET("/api/v1/trigger-events", {
          params: {
            query: {
              ...asks,
              started: started === undefined ? undefined : started === "true",
              since: sinceOf(since, Date.now()),
              ...pageOf(first, pageParam),
            },
          },
        }),
      ),
    getNextPageParam: (last) => last.next,
    select: (data) => data.pages.flatMap((page) => page.events),
  });
  return (
    <List
      title="Events"
      facets={FACETS}
      list={list}
      dated="When"
      head={[
        ["When", 12],
        ["What happened", 28],
        ["By", 13],
        ["What it started", 47],
      ]}
      empty="Nothing happened yet: a push, a tag, a clock or a version that goes live will stand here."
      row={(event) => (
        <tr key={event.id}>
          <td>
            <At time={event.at} />
          </td>
          <td className="break-words">
            {sentenceOf(event)}
            <div>
              <Link className="small-text" to={`/chain?event=${event.id}&of=${event.component}`}>
                what it led to
              </Link>
            </div>
          </td>
          <td className="truncate" title={event.by}>
            {event.by}
          </td>
          <td className="break-words">
            <Considered event={event} />
          </td>
        </tr>
      )}
    />
  );
}
