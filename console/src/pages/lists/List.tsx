import type { UseInfiniteQueryResult } from "@tanstack/react-query";
import { useQuery } from "@tanstack/react-query";
import { useCallback, useDeferredValue, type JSX, type ReactNode } from "react";
import { Link, useSearchParams } from "react-router";
import { whereabouts } from "../../api/queries";
import { Loading, Trouble } from "../../design/parts";
import { Search } from "../../design/Search";
import { asked, DEPLOYMENT_STATUSES, KIND_WORDS, RUN_STATUSES, SINCE, told, type Facet, type Facets } from "./facets";
import { Rows } from "./Rows";
import { Views } from "./Views";

/** What is typed is asked so many milliseconds after the last letter. */
const PAUSE = 250;
/** Lists that lead to each other. */
const SIBLINGS = ["Runs", "Versions", "Deployments", "Events"];
const ANY: Partial<Record<Facet, string>> = {
  since: "any time",
  blocked: "blocked or not",
  by: "by anybody",
  kind: "whatever happened",
  started: "started a run or not",
  what: "any action",
  text: "any text",
};

/** What the address asks of a list, and how another thing is asked. */
export function useFacets(of: readonly Facet[]): [Facets, (facet: Facet, value: string) => void] {
  const [params, setParams] = useSearchParams();
  const set = (facet: Facet, value: string) =>
    setParams(
      (now) => {
        if (value) now.set(facet, value);
        else now.delete(facet);
        return now;
      },
      { replace: true },
    );
  return [asked(params, of), set];
}

interface Known {
  component: string[];
  environment: string[];
  label: string[];
}

/** Which names there are to choose from. */
function useNames(): Known {
  const where = useQuery(whereabouts());
  const rows = where.data?.rows ?? [];
  return {
    component: rows.map((row) => row.component),
    environment: where.data?.environments.map((each) => each.name) ?? [],
    label: [...new Set(rows.flatMap((row) => Object.values(row.labels)))].sort(),
  };
}

interface FacetProps {
  facet: Facet;
  value: string;
  of: [value: string, word: string][];
  onChoose: (value: string) => void;
}

function Choice({ facet, value, of, onChoose }: FacetProps) {
  const shown = value && !of.some(([each]) => each === value) ? [...of, [value, value] as [string, string]] : of;
  return (
    <select aria-label={`Which ${facet}`} value={value} onChange={(event) => onChoose(event.target.value)}>
      <option value="">{ANY[facet] ?? `any ${facet}`}</option>
      {shown.map(([each, word]) => (
        <option key={each} value={each}>
          {word}
        </option>
      ))}
    </select>
  );
}

const same = (names: string[]) => names.map((name): [string, string] => [name, name]);

interface ListProps<T> {
  title: string;
  /** What can be asked of it. */
  facets: readonly Facet[];
  statuses?: "runs" | "deployments";
  list: UseInfiniteQueryResult<T[]>;
  /** The columns, each with its share of the width in percent: it stays while rows come and go. */
  head: [word: string, share: number][];
  row: (each: T) => JSX.Element;
  /** What there is to do where there is nothing at all. */
  empty: ReactNode;
  /** Whether it is still being looked for more by itself. */
  going?: boolean;
  /** What stands over it. */
  above?: ReactNode;
  /** Buttons at its head. */
  acts?: ReactNode;
}

/** A list of everything of a kind, the newest first; what is asked of it stands in the address. */
export function List<T>({ title, facets, statuses, list, head, row, empty, acts, above, going }: ListProps<T>) {
  const [asks, set] = useFacets(facets);
  const names = useNames();
  const rows = useDeferredValue(list.data ?? []);
  const { fetchNextPage } = list;
  const more = useCallback(() => void fetchNextPage(), [fetchNextPage]);
  const choices = (facet: Facet): [string, string][] | undefined => {
    switch (facet) {
      case "component":
      case "environment":
      case "label":
        return same(names[facet]);
      case "status":
        return same(statuses === "runs" ? RUN_STATUSES : DEPLOYMENT_STATUSES);
      case "since":
        return Object.entries(SINCE).map(([word, { words }]) => [word, words]);
      case "kind":
        return Object.entries(KIND_WORDS);
      case "started":
        return [
          ["true", "started a run"],
          ["false", "started nothing"],
        ];
      case "blocked":
        return [
          ["true", "blocked"],
          ["false", "not blocked"],
        ];
      default:
        return undefined;
    }
  };
  return (
    <>
      <title>{`${title} · Paseo`}</title>
      <div className="title-line">
        <h1>{title}</h1>
        <p>
          {told(asks)}.{" "}
          {(SIBLINGS.includes(title) ? SIBLINGS : [])
            .filter((each) => each !== title)
            .map((each) => (
              <Link key={each} className="mr-3" to={`/${each.toLowerCase()}`}>
                {each}
              </Link>
            ))}
        </p>
        <div className="title-end flex gap-2">
          {acts}
          <Views />
        </div>
      </div>
      <form
        className="mb-4 flex flex-wrap items-center gap-2"
        aria-label={`Which ${title.toLowerCase()}`}
        onSubmit={(event) => event.preventDefault()}
      >
        {facets.map((facet) => {
          const of = choices(facet);
          const common = { facet, value: asks[facet] ?? "", onChoose: (value: string) => set(facet, value) };
          if (facet === "label" && names.label.length === 0) return null;
          return of ? (
            <Choice key={facet} {...common} of={of} />
          ) : (
            <Search
              key={facet}
              label={`Which ${facet}`}
              placeholder={ANY[facet] ?? `any ${facet}`}
              value={common.value}
              onType={common.onChoose}
              pause={PAUSE}
            />
          );
        })}
        {Object.keys(asks).length > 0 && (
          <Link className="btn small" to="?">
            All of them
          </Link>
        )}
      </form>
      {above}
      {list.isPending && <Loading height={520} />}
      {list.isError && <Trouble error={list.error} />}
      {list.data && rows.length === 0 && !going && (
        <p className="empty">{Object.keys(asks).length > 0 ? "None is like that." : empty}</p>
      )}
      {rows.length > 0 && (
        <section className="sheet p-5">
          <div className="table-scroll" tabIndex={0} role="region" aria-label={title}>
            <table className="w-full min-w-[960px] table-fixed" aria-rowcount={list.hasNextPage ? -1 : rows.length + 1}>
              <colgroup>
                {head.map(([word, share]) => (
                  <col key={word} style={{ width: `${share}%` }} />
                ))}
              </colgroup>
              <thead>
                <tr>
                  {head.map(([word]) => (
                    <th key={word}>{word}</th>
                  ))}
                </tr>
              </thead>
              <Rows
                rows={rows}
                row={row}
                columns={head.length}
                onMore={list.hasNextPage && !list.isFetchingNextPage ? more : undefined}
              />
            </table>
          </div>
          {list.hasNextPage && (
            <button type="button" className="btn mt-4" disabled={list.isFetchingNextPage} onClick={more}>
              Older
            </button>
          )}
        </section>
      )}
    </>
  );
}
