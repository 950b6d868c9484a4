import { ArrowDownToLine, ChevronDown, ChevronUp, Download, Search } from "lucide-react";
import type { LogSource } from "./source";
import type { SearchState } from "./useSearch";

const LOG_SEARCH =
  "flex items-center gap-1.5 h-7 border border-line-strong rounded-[8px] py-0 pr-1 pl-2 bg-raised text-[12px] " +
  "text-ink-3 [&_input]:border-0 [&_input]:h-auto [&_input]:p-0 [&_input]:bg-transparent [&_input]:text-ink " +
  "[&_input]:[font:500_13px/18px_var(--font-mono)] [&_input]:w-27.5 [&_input]:outline-0 " +
  "focus-within:[outline:2px_solid_var(--ink)] focus-within:[outline-offset:1px] [&_button]:border-0 " +
  "[&_button]:bg-transparent [&_button]:p-0.5 [&_button]:inline-flex [&_button]:text-ink-2";

const LOG_BAR =
  "flex flex-wrap items-center gap-2 min-h-11.5 pr-2.5 pl-4 py-1.5 bg-surface border-b border-b-line " +
  "[&>b]:text-[15px] [&>b]:font-stretch-[104%]";

interface Props {
  source: LogSource;
  total: number;
  away: boolean;
  search: SearchState;
  following: boolean;
  onFollow: () => void;
}

/** What can be done with a log: search, follow, take it away whole. */
export function LogBar({ source, total, away, search, following, onFollow }: Props) {
  return (
    <div className={LOG_BAR}>
      <b>{source.title}</b>
      <span className="quiet">
        {total.toLocaleString()} {total === 1 ? "line" : "lines"}
        {away && ", connection lost"}
      </span>
      <span className="grow" />
      <label className={`log-search ${LOG_SEARCH}`}>
        <Search size={15} aria-hidden="true" />
        <span className="sr-only">Search the log</span>
        <input
          value={search.wanted}
          onChange={(event) => search.look(event.target.value)}
          onKeyDown={(event) => event.key === "Enter" && search.go(event.shiftKey ? -1 : 1)}
          placeholder="Search"
        />
        {search.wanted.length > 1 && <span>{search.words}</span>}
        <button type="button" onClick={() => search.go(-1)} aria-label="Previous match">
          <ChevronUp size={16} />
        </button>
        <button type="button" onClick={() => search.go(1)} aria-label="Next hit">
          <ChevronDown size={16} />
        </button>
      </label>
      <button type="button" className="btn small" aria-pressed={following} onClick={onFollow}>
        <ArrowDownToLine size={15} />
        {following ? "Following" : "Follow"}
      </button>
      <a className="btn small quiet-btn" href={source.whole} download={source.file}>
        <Download size={15} />
        Whole log
      </a>
    </div>
  );
}
