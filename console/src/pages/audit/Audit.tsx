import { useInfiniteQuery, useQuery, type UseInfiniteQueryResult } from "@tanstack/react-query";
import { Download } from "lucide-react";
import { Dialog } from "radix-ui";
import { useEffect, type ReactNode } from "react";
import { Link, useSearchParams } from "react-router";
import { api, need, type Schemas } from "../../api/client";
import { useMay } from "../../api/may";
import { Digest, Loading, Trouble } from "../../design/parts";
import { At } from "../../design/time";
import { Looking } from "../history/Looking";
import { sinceOf, type Facet } from "../lists/facets";
import { useFacets } from "../lists/FacetForm";
import { List } from "../lists/List";
import { marks, others, pathOf } from "./told";
import { OVERLAY, DIALOG } from "../../design/classes";

type Entry = Schemas["EntryView"];

const FACETS: Facet[] = ["by", "what", "component", "version", "environment", "deployment", "text", "since"];
/** How often it is looked for what came, in milliseconds. */
const LIVE = 5_000;

/** Who did what to what, where, when and because of what: every entry of the audit trail, the newest first. */
export default function Audit() {
  const [{ since, deployment, ...asks }] = useFacets(FACETS);
  const may = useMay();
  const [params, setParams] = useSearchParams();
  const signIns = params.get("sign-ins") === "yes";
  const found = useInfiniteQuery({
    queryKey: ["audit", asks, deployment, since, signIns],
    initialPageParam: undefined as number | undefined,
    queryFn: ({ pageParam }) =>
      need(
        api.GET("/api/v1/audit", {
          params: {
            query: {
              ...asks,
              deployment: deployment && /^\d{1,15}$/.test(deployment) ? Number(deployment) : undefined,
              since: sinceOf(since, Date.now()),
              // Whoever asks for an action asks for this one too.
              signIns: signIns || asks.what !== undefined,
              before: pageParam,
            },
          },
        }),
      ),
    // What is looked at far down is not asked anew all the time: it would be every page of it.
    refetchInterval: ({ state }) => ((state.data?.pages.length ?? 0) > 1 ? false : LIVE),
    getNextPageParam: (last) => last.next,
    select: (data) => ({
      entries: data.pages.flatMap((page) => page.entries),
      lookedBack: data.pages.at(-1)?.lookedBack,
      next: data.pages.at(-1)?.next,
    }),
  });
  // A text is looked for among so many entries at once: on until a page is full, or all were looked through.
  const { fetchNextPage, hasNextPage, isFetching, isError } = found;
  const { lookedBack, next } = found.data ?? {};
  useEffect(() => {
    if (lookedBack && hasNextPage && !isFetching && !isError) void fetchNextPage();
  }, [lookedBack, next, hasNextPage, isFetching, isError, fetchNextPage]);
  const list = { ...found, data: found.data?.entries } as UseInfiniteQueryResult<Entry[]>;
  return (
    <>
      <List
        title="Audit trail"
        facets={FACETS}
        list={list}
        head={[
          ["When", 13],
          ["What happened", 42],
          ["About", 19],
          ["Because of", 26],
        ]}
        also={<Looking but="Audit trail" />}
        empty="Nothing was done yet."
        above={
          <>
            <label className="mb-3 flex items-center gap-2 text-[13px]">
              <input
                type="checkbox"
                checked={signIns}
                onChange={({ target }) =>
                  setParams(
                    (now) => {
                      if (target.checked) now.set("sign-ins", "yes");
                      else now.delete("sign-ins");
                      return now;
                    },
                    { replace: true },
                  )
                }
              />
              Signing in too
            </label>
            {lookedBack && (
              <p role="status" className="quiet mb-3">
                Looked back to <At time={lookedBack} />
                {found.isError ? "; then it failed." : "; it goes on."}
              </p>
            )}
          </>
        }
        going={lookedBack !== undefined}
        acts={
          may("VERIFY_AUDIT") && (
            <a className="btn" href="/api/v1/audit/export" download="trail.jsonl">
              <Download size={15} />
              Export
            </a>
          )
        }
        row={(each) => row(each, params)}
      />
      <Opened />
    </>
  );
}

function row({ id, entry, sentence, position }: Entry, params: URLSearchParams) {
  const path = pathOf(entry);
  const opened = new URLSearchParams(params);
  opened.set("entry", String(position));
  return (
    <tr key={id}>
      <td>
        <At time={entry.at} />
      </td>
      <td className="break-words" title={entry.what}>
        {position === undefined ? sentence : <Link to={`?${opened.toString()}`}>{sentence}</Link>}
        {marks(entry).map((mark) => (
          <span key={mark} className="badge warn ml-2">
            {mark}
          </span>
        ))}
      </td>
      <td className="break-words">{path ? <Link to={path}>{entry.subject}</Link> : entry.subject}</td>
      <td className="[overflow-wrap:anywhere]">{entry.because}</td>
    </tr>
  );
}

/** The entry that the address names, over the list. */
function Opened() {
  const [params, setParams] = useSearchParams();
  const position = params.get("entry");
  if (!position || !/^\d{1,15}$/.test(position)) return null;
  const close = () =>
    setParams(
      (now) => {
        now.delete("entry");
        return now;
      },
      { replace: true },
    );
  return (
    <Dialog.Root open onOpenChange={(open) => !open && close()}>
      <Dialog.Portal>
        <Dialog.Overlay className={OVERLAY} />
        <Dialog.Content className={`${DIALOG} sheet max-h-[80vh] overflow-auto [--top:8vh] [--width:760px]`}>
          <Dialog.Title>Entry {position}</Dialog.Title>
          <Dialog.Description className="sr-only">All that it holds, and its proof</Dialog.Description>
          <Whole position={Number(position)} />
          <Dialog.Close asChild>
            <button type="button" className="btn">
              Close
            </button>
          </Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function Whole({ position }: { position: number }) {
  const proved = useQuery({
    queryKey: ["audit", "entry", position],
    queryFn: () => need(api.GET("/api/v1/audit/entries/{position}", { params: { path: { position } } })),
    staleTime: Infinity,
  });
  if (proved.isPending) return <Loading />;
  if (proved.isLoadingError) return <Trouble error={proved.error} />;
  const { entry, head, path, sentence } = proved.data;
  const lead = pathOf(entry);
  const rows: [string, string][] = [
    ["who", entry.who],
    ["what", entry.what],
    ["where", entry.where],
  ];
  return (
    <>
      <p className="mt-0 text-[15px]">
        <b>{sentence}</b>
      </p>
      <dl className="facts">
        <dt>when</dt>
        <dd>
          <At time={entry.at} /> <code className="text-[12px]">{entry.at}</code>
        </dd>
        {[...rows, ["because of", entry.because] as [string, string], ...others(entry)]
          .filter(([, value]) => value !== "")
          .map(([name, value]) => (
            <Fact key={name} name={name} value={value} />
          ))}
        <dt>about</dt>
        <dd>{lead ? <Link to={lead}>{entry.subject}</Link> : entry.subject}</dd>
      </dl>
      <h3>Proof</h3>
      <p className="m-0 text-[13px]">
        It is entry {position} of the {head.size} that the head covers which was signed <At time={head.at} />. From its
        leaf, {path.length} hashes beside it lead to the root. <code>paseo audit show {position}</code> checks that;
        whoever has the hashes can, as RFC 9162 says.
      </p>
      <dl className="facts">
        <dt>root</dt>
        <dd>
          <Digest value={head.root} />
        </dd>
        {path.map((hash, at) => (
          <Fact key={hash} name={at === 0 ? "path" : ""} value={<Digest value={hash} />} />
        ))}
        <dt>key</dt>
        <dd>
          <code className="text-[12px] [overflow-wrap:anywhere]">{head.key}</code>
        </dd>
      </dl>
    </>
  );
}

const Fact = ({ name, value }: { name: string; value: ReactNode }) => (
  <>
    <dt>{name}</dt>
    <dd className="[overflow-wrap:anywhere]">{value}</dd>
  </>
);
