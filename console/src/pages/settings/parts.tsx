import { useQuery } from "@tanstack/react-query";
import { Check, Copy } from "lucide-react";
import { useState, type ReactNode } from "react";
import { Link, useSearchParams } from "react-router";
import { Search } from "../../design/Search";
import { At } from "../../design/time";
import { trail } from "./queries";
import { Wide } from "../../design/Wide";

interface SheetProps {
  title: ReactNode;
  about?: ReactNode;
  /** Buttons at its head. */
  acts?: ReactNode;
  /** Whose changes are told beside it, as the audit trail names it. */
  history?: string | undefined;
  /** It is what the page is about. */
  lead?: boolean;
  children?: ReactNode;
}

/** One thing that is set, with who changed it last. */
export function Sheet({ title, about, acts, history, lead, children }: SheetProps) {
  const Heading = lead ? "h1" : "h2";
  return (
    <section className="sheet mb-5 p-5">
      <header className="mb-3 flex flex-wrap items-start gap-x-4 gap-y-2">
        <div className="min-w-0 grow basis-72">
          <Heading className="m-0 text-[16px] leading-6">{title}</Heading>
          {about && <p className="m-0 text-[13px] text-ink-2">{about}</p>}
        </div>
        <div className="flex flex-wrap gap-2">{acts}</div>
      </header>
      {children}
      {history !== undefined && <History subject={history} />}
    </section>
  );
}

/** The newest changes of something, from the audit trail. */
function History({ subject }: { subject: string }) {
  const known = useQuery(trail(subject));
  const entries = known.data?.entries ?? [];
  if (entries.length === 0) return null;
  return (
    <details className="mt-4 text-[13px] text-ink-2">
      <summary className="cursor-pointer">
        Changed last <At time={String(entries[0]?.entry.at)} /> by {String(entries[0]?.entry.who)}
      </summary>
      <ul className="m-0 mt-2 grid list-none gap-1 p-0">
        {entries.map((each) => (
          <li key={each.id}>
            <At time={String(each.entry.at)} /> {String(each.entry.who)}: {String(each.entry.what)}
            {Boolean(each.entry.because) && <> “{String(each.entry.because)}”</>}
          </li>
        ))}
      </ul>
    </details>
  );
}

/** A setting as a sentence with its value in it, and what changes it at the right. */
export const Sentence = ({ children, change }: { children: ReactNode; change?: ReactNode }) => (
  <div className="flex items-center gap-4 border-t border-line py-2 first:border-t-0">
    <span className="min-w-0 grow [overflow-wrap:anywhere]">{children}</span>
    {change}
  </div>
);

/** Something that is shown once and copied: a token, a code, lines to paste. */
export function Once({ words, value }: { words: ReactNode; value: string }) {
  const [copied, setCopied] = useState(false);
  return (
    <>
      <p>{words}</p>
      <div className="mb-4 flex items-start gap-2">
        <pre
          tabIndex={0}
          className={
            "m-0 min-w-0 grow overflow-x-auto rounded-[4px] border border-line bg-log p-3 " +
            "font-mono text-[13px] whitespace-pre-wrap [overflow-wrap:anywhere]"
          }
        >
          {value}
        </pre>
        <button
          type="button"
          className="btn small"
          onClick={() => void navigator.clipboard.writeText(value).then(() => setCopied(true))}
        >
          {copied ? <Check size={14} /> : <Copy size={14} />}
          {copied ? "Copied" : "Copy"}
        </button>
      </div>
    </>
  );
}

/** Names in one text, parted by commas or lines. */
export const listed = (text: string): string[] =>
  text
    .split(/[,\n]/)
    .map((each) => each.trim())
    .filter((each) => each !== "");

/** Says that something is not there yet, and what it is for. */
export const None = ({ children }: { children: ReactNode }) => <p className="m-0 text-ink-2">{children}</p>;

/** So many at once; of a longer list one types a part of the name. */
const SHOWN = 100;
/** A list as short as this is looked through by eye. */
const SHORT = 20;

interface NarrowedProps<T> {
  of: T[];
  /** What they are, as one says of several. */
  what: string;
  /** The text that is searched of each. */
  by: (each: T) => string;
  children: (shown: T[]) => ReactNode;
}

/** A list that may be long: a field that narrows it, which stands in the address, and how many are not shown. */
export function Narrowed<T>({ of, what, by, children }: NarrowedProps<T>) {
  const [asks, setAsks] = useSearchParams();
  const text = asks.get("text") ?? "";
  if (of.length <= SHORT && text === "") return children(of);
  const found = of.filter((each) => by(each).toLowerCase().includes(text.trim().toLowerCase()));
  const some = (count: number) => count.toLocaleString("en");
  return (
    <>
      <form className="mb-4 flex flex-wrap items-center gap-3" onSubmit={(event) => event.preventDefault()}>
        <Search
          label={`Only ${what} that have this in them`}
          placeholder="part of a name"
          value={text}
          onType={(typed) => setAsks(typed ? { text: typed } : {}, { replace: true })}
        />
        <span className="quiet" role="status">
          {found.length === of.length
            ? `${some(of.length)} ${what}`
            : `${some(found.length)} of ${some(of.length)} ${what}`}
          {found.length > SHOWN && `, the first ${SHOWN} shown`}
        </span>
      </form>
      {found.length === 0 ? <None>None is like that.</None> : children(found.slice(0, SHOWN))}
    </>
  );
}

/** A table as wide as its sheet. */
export const Rows = ({ head, children }: { head: string[]; children: ReactNode }) => (
  <Wide label={head.filter(Boolean).join(", ")}>
    <table className="w-full max-sm:min-w-[600px] [&_td:first-child_b]:whitespace-nowrap">
      <thead>
        <tr>
          {head.map((each) => (
            <th key={each}>{each || <span className="sr-only">what can be done</span>}</th>
          ))}
        </tr>
      </thead>
      <tbody>{children}</tbody>
    </table>
  </Wide>
);

export const ToComponent = ({ name }: { name: string }) => <Link to={`/settings/components/${name}`}>{name}</Link>;
