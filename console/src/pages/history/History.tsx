import { keepPreviousData, useInfiniteQuery, useQuery } from "@tanstack/react-query";
import { Link, useSearchParams } from "react-router";
import { api, need, type Schemas } from "../../api/client";
import { Loading, Trouble } from "../../design/parts";
import { At, useNow } from "../../design/time";
import { SINCE, type Facet } from "../lists/facets";
import { useFacets } from "../lists/FacetForm";
import { List } from "../lists/List";
import { Looking } from "./Looking";
import type { Span } from "./lanes";
import { Between, Then } from "./Moments";
import { Key, Picture } from "./Picture";
import { said } from "./words";

type Happened = Schemas["HappenedView"];

const FACETS: Facet[] = ["environment", "component", "host", "by", "since"];
const HOUR = 3_600_000;
const MINUTE = 60_000;

/** The time that is looked at: so long, up to now or to what the address says; the same for a minute. */
function useSpan(since: string | undefined): Span {
  const [params] = useSearchParams();
  const now = useNow(MINUTE).getTime();
  const until = new Date(params.get("until") ?? "").getTime();
  const to = Number.isNaN(until) ? (Math.floor(now / MINUTE) + 1) * MINUTE : until;
  return { from: to - (SINCE[since ?? ""] ?? SINCE["7d"]!).hours * HOUR, to };
}

/** What happened to what is live: as a picture over time, and as a list. */
export default function History() {
  const [{ since, ...asks }] = useFacets(FACETS);
  const span = useSpan(since);
  const [params] = useSearchParams();
  const moved = params.has("until");
  const range = {
    since: since || moved ? new Date(span.from).toISOString() : undefined,
    until: moved ? new Date(span.to).toISOString() : undefined,
  };
  const list = useInfiniteQuery({
    queryKey: ["history", asks, range],
    initialPageParam: undefined as string | undefined,
    queryFn: ({ pageParam }) =>
      need(api.GET("/api/v1/history", { params: { query: { ...asks, ...range, after: pageParam } } })),
    getNextPageParam: (last) => last.next,
    select: (data) => data.pages.flatMap((page) => page.happened),
  });
  return (
    <List
      title="History"
      facets={FACETS}
      list={list}
      also={<Looking but="History" />}
      above={<Over span={span} asks={asks} />}
      head={[
        ["When", 13],
        ["Environment", 13],
        ["Component", 15],
        ["What happened", 22],
        ["By", 13],
        ["Why", 24],
      ]}
      empty="Nothing happened yet: what goes live, holds and closures will stand here."
      row={row}
    />
  );
}

const row = (each: Happened) => (
  <tr key={`${each.at} ${each.what} ${each.component ?? each.environment} ${each.deployment ?? each.host ?? ""}`}>
    <td>
      <At time={each.at} />
    </td>
    <td>
      <Link to={`/environments/${each.environment}`}>{each.environment}</Link>
    </td>
    <td className="break-words">
      {each.component ? <Link to={`/components/${each.component}`}>{each.component}</Link> : "all of it"}
    </td>
    <td className="break-words">
      {each.deployment ? <Link to={`/deployments/${each.deployment}`}>{said(each)}</Link> : said(each)}
      {each.emergency && <span className="badge bad ml-2">emergency</span>}
    </td>
    <td className="truncate">{each.by ?? (each.deployment ? "the walk" : "")}</td>
    <td className="[overflow-wrap:anywhere]">{each.reason}</td>
  </tr>
);

/** The lanes, and the moments that were chosen on them. */
function Over({ span, asks }: { span: Span; asks: { component?: string; environment?: string; host?: string } }) {
  const [params, setParams] = useSearchParams();
  const { component, environment, host } = asks;
  const query = {
    component,
    environment,
    host,
    since: new Date(span.from).toISOString(),
    until: new Date(span.to).toISOString(),
  };
  const lanes = useQuery({
    queryKey: ["history", "lanes", query],
    queryFn: () => need(api.GET("/api/v1/history/lanes", { params: { query } })),
    placeholderData: keepPreviousData,
  });
  const chosen = ["at", "with"].flatMap((name) => params.get(name) ?? []).filter((each) => !isNaN(Date.parse(each)));
  const set = (change: (now: URLSearchParams) => void) =>
    setParams(
      (now) => {
        change(now);
        return now;
      },
      { replace: true },
    );
  const choose = (moment: Date) =>
    set((now) => {
      if (chosen.length === 1) return now.set("with", moment.toISOString());
      now.set("at", moment.toISOString());
      now.delete("with");
    });
  const move = (share: number) =>
    set((now) => {
      const to = span.to + share * (span.to - span.from);
      if (to >= Date.now()) now.delete("until");
      else now.set("until", new Date(to).toISOString());
    });
  const [first, second] = chosen.toSorted();
  return (
    <div className="mb-5">
      <div className="mb-2 flex flex-wrap items-center gap-2 text-[13px] text-ink-2">
        <button type="button" className="btn small" onClick={() => move(-0.5)}>
          Earlier
        </button>
        <span>
          <At time={query.since} /> to <At time={query.until} />
        </span>
        <button type="button" className="btn small" disabled={!params.has("until")} onClick={() => move(0.5)}>
          Later
        </button>
        {first && (
          <button
            type="button"
            className="btn small"
            onClick={() =>
              set((now) => {
                now.delete("at");
                now.delete("with");
              })
            }
          >
            No moment
          </button>
        )}
      </div>
      {lanes.isPending && <Loading height={160} />}
      {lanes.isLoadingError && <Trouble error={lanes.error} />}
      {lanes.data && lanes.data.lanes.length === 0 && <p className="quiet">Nothing was live there in this time.</p>}
      {lanes.data && lanes.data.lanes.length > 0 && (
        <>
          <Picture lanes={lanes.data.lanes} span={span} chosen={chosen} onMoment={choose} />
          <Key />
          {(lanes.data.next || lanes.data.cut) && (
            <p className="quiet">
              There is more than is drawn:{" "}
              {lanes.data.next ? "only the first 50 places" : "only the newest 5,000 times"} are here. Ask for a
              component or an environment, or for a shorter time.
            </p>
          )}
          {first && !second && <Then moment={first} lanes={lanes.data.lanes} />}
          {first && second && <Between since={first} until={second} />}
        </>
      )}
    </div>
  );
}
