import type { UseInfiniteQueryResult } from "@tanstack/react-query";
import { ArrowDown, ArrowUp } from "lucide-react";
import { useCallback, useDeferredValue, type JSX, type ReactNode } from "react";
import { Link } from "react-router";
import { Loading, Trouble } from "../../design/parts";
import { FacetForm, useFacets } from "./FacetForm";
import { narrows, told, type Facet } from "./facets";
import { Rows } from "./Rows";
import { Views } from "./Views";
import { TITLE_END } from "../../design/classes";

/** Lists that lead to each other. */
const SIBLINGS = ["Runs", "Versions", "Deployments", "Events"];
interface ListProps<T> {
  title: string;
  /** What can be asked of it. */
  facets: readonly Facet[];
  statuses?: "runs" | "deployments";
  list: UseInfiniteQueryResult<T[]>;
  /** The columns, each with its share of the width in percent: it stays while rows come and go. */
  head: [word: string, share: number][];
  /** The column that the list is in the order of. */
  dated?: string;
  row: (each: T) => JSX.Element;
  /** What there is to do where there is nothing at all. */
  empty: ReactNode;
  /** Links to what is near. */
  also?: ReactNode;
  /** Whether it is still being looked for more by itself. */
  going?: boolean;
  /** What stands over it. */
  above?: ReactNode;
  /** Buttons at its head. */
  acts?: ReactNode;
}

/** The head stays while one scrolls. Its line is a background: borders of a table that shares them stay behind. */
const HEAD =
  "min-[1100px]:bg-[linear-gradient(var(--line),var(--line))] min-[1100px]:bg-[length:100%_1px] " +
  "min-[1100px]:bg-bottom min-[1100px]:bg-no-repeat min-[1100px]:pt-2";

/** The head of the column that a list is in the order of: it turns the order round. */
function Order({ oldest, word, onTurn }: { oldest: boolean; word: string; onTurn: () => void }) {
  const Arrow = oldest ? ArrowUp : ArrowDown;
  return (
    <button
      type="button"
      className="inline-flex items-center gap-1 underline-offset-2 hover:underline"
      title={oldest ? "The oldest first; turn round" : "The newest first; turn round"}
      onClick={onTurn}
    >
      {word}
      <Arrow size={13} aria-hidden="true" />
    </button>
  );
}

/** A list of everything of a kind, in the order of time; what is asked of it stands in the address. */
export function List<T>({
  title,
  facets,
  statuses,
  list,
  head,
  dated,
  row,
  empty,
  acts,
  above,
  going,
  also,
}: ListProps<T>) {
  const [asks, ask] = useFacets(facets);
  const oldest = asks.first === "oldest";
  const rows = useDeferredValue(list.data ?? []);
  const { fetchNextPage } = list;
  const more = useCallback(() => void fetchNextPage(), [fetchNextPage]);
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
          {also}
        </p>
        <div className={`${TITLE_END} flex gap-2`}>
          {acts}
          <Views />
        </div>
      </div>
      <FacetForm title={title} facets={facets} statuses={statuses} />
      {above}
      {list.isPending && <Loading height={520} />}
      {list.isError && <Trouble error={list.error} />}
      {list.data && rows.length === 0 && !going && (
        <p className="empty">{narrows(asks) ? "None is like that." : empty}</p>
      )}
      {rows.length > 0 && (
        <section className="sheet p-5">
          <div
            className="overflow-x-auto min-[1100px]:overflow-x-visible"
            tabIndex={0}
            role="region"
            aria-label={title}
          >
            <table
              className="w-full min-w-[960px] table-fixed max-sm:min-w-[720px]"
              aria-rowcount={list.hasNextPage ? -1 : rows.length + 1}
            >
              <colgroup>
                {head.map(([word, share]) => (
                  <col key={word} style={{ width: `${share}%` }} />
                ))}
              </colgroup>
              <thead className="bg-surface min-[1100px]:sticky min-[1100px]:top-0 min-[1100px]:z-10">
                <tr>
                  {head.map(([word]) => (
                    <th
                      key={word}
                      className={HEAD}
                      aria-sort={word !== dated ? undefined : oldest ? "ascending" : "descending"}
                    >
                      {word === dated && facets.includes("first") ? (
                        <Order oldest={oldest} word={word} onTurn={() => ask("first", oldest ? "" : "oldest")} />
                      ) : (
                        word
                      )}
                    </th>
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
              {oldest ? "Newer" : "Older"}
            </button>
          )}
        </section>
      )}
    </>
  );
}
