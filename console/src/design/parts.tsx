import { Check, Copy } from "lucide-react";
import { useEffect, useState, type ReactNode } from "react";
import { Link, useRouteError } from "react-router";
import { Problem } from "../api/client";
import { TROUBLE } from "./classes";

const LOZENGE =
  "inline-flex items-center gap-1.5 h-7 py-0 pr-2.5 pl-1.25 [border-radius:14px] bg-raised border " +
  "border-line-strong no-underline text-[14px] [--gbg:var(--raised)] whitespace-nowrap flex-none [&.ghost]:py-0 " +
  "[&.ghost]:px-2.5 [&.ghost]:[border-style:dashed] [&.ghost]:border-stone [&.ghost]:bg-transparent " +
  "[&.ghost]:text-ink-3 [&.moving]:bg-primary [&.moving]:border-primary [&.moving]:text-on-primary " +
  "[&.moving]:[--gbg:var(--primary)] [&.moving_.ink]:text-on-primary";
const DIGEST = "inline-flex items-center gap-0.5 whitespace-nowrap";

/** A version's lozenge. */
export function Lozenge({
  to,
  glyph,
  children,
  kind = "",
}: {
  to?: string;
  glyph?: ReactNode;
  children: ReactNode;
  kind?: string;
}) {
  const inner = (
    <>
      {glyph}
      <span className="v">{children}</span>
    </>
  );
  return to ? (
    <Link to={to} className={`loz ${LOZENGE} ${kind}`}>
      {inner}
    </Link>
  ) : (
    <span className={`loz ${LOZENGE} ${kind}`}>{inner}</span>
  );
}

/** A digest: short to read, whole to copy. */
export function Digest({ value }: { value: string }) {
  const [copied, setCopied] = useState(false);
  const copy = () => void navigator.clipboard.writeText(value).then(() => setCopied(true));
  return (
    <span className={DIGEST}>
      <code title={value} className="print:hidden">
        {value.slice(0, 8)}
      </code>
      <code className="hidden text-[11px] [overflow-wrap:anywhere] print:inline">{value}</code>
      <button
        type="button"
        className="icon small"
        onClick={copy}
        aria-label={copied ? "Copied" : `Copy digest ${value.slice(0, 8)} whole`}
      >
        {copied ? <Check size={14} /> : <Copy size={14} />}
      </button>
    </span>
  );
}

const units = ["bytes", "kB", "MB", "GB", "TB", "PB"];

/** How many bytes, in powers of ten with at most one decimal, as the service and the client write it. */
export function bytes(size: number) {
  if (size === 1) return "1 byte";
  let unit = 0;
  let left = size;
  while (unit < units.length - 1 && Math.round(left * 10) / 10 >= 1000) {
    left /= 1000;
    unit++;
  }
  return `${Math.round(left * 10) / 10} ${units[unit]}`;
}

/** After so many milliseconds it is said that something takes long. */
const LONG = 3_000;

/** Something is on its way; it keeps the place so that nothing jumps, and says so where it takes long. */
export function Loading({ height = 240 }: { height?: number }) {
  const [long, setLong] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setLong(true), LONG);
    return () => clearTimeout(timer);
  }, []);
  return (
    <div className="grid place-items-center text-ink-3" style={{ minHeight: height }} role="status">
      {long ? "Loading… The service takes long to answer." : "Loading…"}
    </div>
  );
}

/** What went wrong; where it is all that the page shows, under its heading. */
export function Trouble({ error, whole = false }: { error: unknown; whole?: boolean }) {
  const Heading = whole ? "h1" : "h2";
  const problem = error instanceof Problem ? error : new Problem(0, "This page failed", String(error));
  return (
    <div className={`${TROUBLE} sheet`} role="alert">
      <Heading className="text-[16px] leading-6">{problem.title}</Heading>
      <p>{problem.message}</p>
      <p>
        <Link to="/">Back to whereabouts</Link>
      </p>
    </div>
  );
}

export const NoPage = () => (
  <Trouble whole error={new Problem(404, "Nothing here", "There is no page at this address.")} />
);

const ANEW = "paseo-loaded-anew";

/**
 * A page that could not be drawn. Where one of its parts is not there any more, the service was upgraded since: it is
 * loaded anew, once a minute at most.
 */
export function Failed() {
  const error = useRouteError();
  const gone = error instanceof TypeError && /dynamically imported module|module script/i.test(error.message);
  useEffect(() => {
    if (!gone || Date.now() - Number(sessionStorage.getItem(ANEW) ?? 0) < 60_000) return;
    sessionStorage.setItem(ANEW, String(Date.now()));
    location.reload();
  }, [gone]);
  if (!gone)
    return (
      <main>
        <Trouble whole error={error} />
      </main>
    );
  return (
    <main>
      <div className={`${TROUBLE} sheet`} role="alert">
        <h1 className="text-[16px] leading-6">This page did not load</h1>
        <p>The service was upgraded meanwhile, or does not answer just now.</p>
        <button type="button" className="btn" onClick={() => location.reload()}>
          Load it again
        </button>
      </div>
    </main>
  );
}
