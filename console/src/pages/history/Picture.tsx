import type { MouseEvent, ReactNode } from "react";
import { Link } from "react-router";
import { Glyph } from "../../design/Glyph";
import { exactOf } from "../../design/time";
import { useZone } from "../../design/zone";
import { marks, momentAt, place, type Lane, type Span } from "./lanes";

interface PictureProps {
  lanes: Lane[];
  span: Span;
  /** Moments that are looked at, as the address has them. */
  chosen: string[];
  onMoment: (moment: Date) => void;
}

const BAR = "absolute top-[26px] h-[6px] w-full border-l-2 border-surface";
const NUMBER = "v absolute top-[6px] block max-w-full truncate pl-1 text-[12px]";
const NAMES = "w-[190px] shrink-0 pr-3 max-sm:w-[110px]";

/** A word stands in the middle of its mark, but where it would leave the picture. */
const beside = (at: number, span: Span) => (place(at, span) > 88 ? "-translate-x-full" : "-translate-x-1/2");

/** What was live in each place over a time; a press on it chooses a moment. */
export function Picture({ lanes, span, chosen, onMoment }: PictureProps) {
  const choose = (event: MouseEvent<HTMLElement>) => {
    if ((event.target as HTMLElement).closest("a")) return;
    const box = event.currentTarget.getBoundingClientRect();
    onMoment(momentAt((event.clientX - box.left) / box.width, span));
  };
  const axis = marks(span);
  // On a phone there is room for the words of two or three.
  const apart = Math.ceil(axis.length / 2.5);
  return (
    <div className="sheet p-5" role="group" aria-label="What was live, over time">
      <div className="flex border-b border-line pb-1 text-[12px] text-ink-3">
        <div className={NAMES} />
        <div className="relative h-4 grow">
          {axis.map(({ at, word }, index) => (
            <span
              key={at}
              className={`absolute whitespace-nowrap ${beside(at, span)} ${index % apart > 0 ? "max-sm:hidden" : ""}`}
              style={{ left: `${place(at, span)}%` }}
            >
              {word}
            </span>
          ))}
        </div>
      </div>
      {lanes.map((lane) => (
        <div key={`${lane.component} ${lane.environment}`} className="flex items-center border-b border-line">
          <div className={`${NAMES} truncate text-[13px]`} title={`${lane.component} in ${lane.environment}`}>
            <Link to={`/places/${lane.component}/${lane.environment}`}>
              <b>{lane.component}</b>
            </Link>{" "}
            <span className="text-ink-2">{lane.environment}</span>
          </div>
          <div className="relative h-[46px] grow cursor-crosshair overflow-hidden" onClick={choose}>
            <Track lane={lane} span={span} />
            {chosen.map((moment) => (
              <span
                key={moment}
                className="pointer-events-none absolute inset-y-0 w-[2px] bg-ink"
                style={{ left: `${place(moment, span)}%` }}
              />
            ))}
          </div>
        </div>
      ))}
    </div>
  );
}

function Track({ lane, span }: { lane: Lane; span: Span }) {
  const zone = useZone();
  const said = (from: string, until: string | undefined, what: string) =>
    `${what}, from ${exactOf(from, zone)} ${until ? `to ${exactOf(until, zone)}` : "on"}`;
  const bar = (from: string, until: string | undefined) => {
    const left = place(from, span);
    return { left: `${left}%`, width: `${Math.max(place(until ?? span.to, span) - left, 0.15)}%` };
  };
  return (
    <>
      <span className="absolute inset-x-0 top-[28px] border-t-2 border-dotted border-line-strong" />
      {lane.closed.map((each) => (
        <Band
          key={each.from}
          style={bar(each.from, each.until)}
          title={said(each.from, each.until, `closed by ${each.by}: ${each.reason}`)}
        >
          closed
        </Band>
      ))}
      {lane.live.map((each) => (
        <Link
          key={`${each.deployment} ${each.from}`}
          to={`/deployments/${each.deployment}`}
          className="absolute inset-y-0 block no-underline"
          style={bar(each.from, each.until)}
          title={said(each.from, each.until, `${each.version}${each.emergency ? ", an emergency" : ""}`)}
        >
          <span className={`${BAR} ${each.until ? "bg-ink" : "bg-good"}`} />
          <span className={`${NUMBER} ${each.emergency ? "text-bad" : ""}`}>
            {each.version}
            {each.emergency && "!"}
          </span>
        </Link>
      ))}
      {lane.held.map((each) => (
        <span
          key={each.from}
          className="absolute top-[36px] h-[4px] bg-warn"
          style={bar(each.from, each.until)}
          title={said(each.from, each.until, `held by ${each.by}: ${each.reason}`)}
        />
      ))}
      {lane.wrong.map((each) => {
        const style = { left: `calc(${place(each.at, span)}% - 7px)` };
        const what = `${each.version ?? each.host ?? ""} ${each.status ?? each.what}`;
        const title = `${what}, ${exactOf(each.at, zone)}${each.reason ? `: ${each.reason}` : ""}`;
        const glyph = (
          <Glyph shape={each.deployment ? "failed" : "warned"} tone={each.deployment ? "bad" : "warn"} size={14} />
        );
        return each.deployment ? (
          <Link
            key={`${each.at} ${each.deployment}`}
            className="absolute top-[22px]"
            style={style}
            to={`/deployments/${each.deployment}`}
            aria-label={title}
            title={title}
          >
            {glyph}
          </Link>
        ) : (
          <span key={`${each.at} ${each.host}`} className="absolute top-[22px]" style={style} title={title}>
            {glyph}
          </span>
        );
      })}
    </>
  );
}

const Band = ({ style, title, children }: { style: object; title: string; children: ReactNode }) => (
  <span
    className="absolute inset-y-0 overflow-hidden bg-slab pl-1 pt-[2px] text-[11px] text-ink-3"
    style={style}
    title={title}
  >
    {children}
  </span>
);

/** What the signs of the picture mean. */
export const Key = () => (
  <p className="mt-2 flex flex-wrap items-center gap-x-5 gap-y-1 text-[12px] text-ink-2">
    <span className="inline-flex items-center gap-1.5">
      <i className="inline-block h-[6px] w-6 bg-good" /> live now
    </span>
    <span className="inline-flex items-center gap-1.5">
      <i className="inline-block h-[6px] w-6 bg-ink" /> was live
    </span>
    <span className="inline-flex items-center gap-1.5">
      <i className="inline-block h-[4px] w-6 bg-warn" /> held
    </span>
    <span className="inline-flex items-center gap-1.5">
      <i className="inline-block h-3 w-6 bg-slab" /> closed
    </span>
    <span className="inline-flex items-center gap-1.5">
      <Glyph shape="failed" tone="bad" size={14} /> did not go live
    </span>
    <span className="inline-flex items-center gap-1.5">
      <Glyph shape="warned" tone="warn" size={14} /> a host in trouble
    </span>
    <span>A press on a lane chooses a moment, another one a second.</span>
  </p>
);
