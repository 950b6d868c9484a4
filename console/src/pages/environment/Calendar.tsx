import { tz, TZDate } from "@date-fns/tz";
import { addDays, format, isSameDay, startOfDay } from "date-fns";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { Glyph } from "../../design/Glyph";
import { deploymentState } from "../../design/states";
import { OWN, useZone } from "../../design/zone";

type View = Schemas["CalendarView"];

const DAYS = 14;
const DAY =
  "grid grid-cols-[86px_minmax(80px,2fr)_minmax(0,5fr)] items-center gap-3 py-1.25 text-[13px] " +
  "max-[900px]:grid-cols-[76px_minmax(60px,1fr)]";
const LINE = "relative h-3.5 overflow-hidden rounded-[4px] bg-ground";
const OPEN = "absolute inset-y-0 bg-good-soft [box-shadow:inset_0_-3px_var(--good)]";
const CLOSED =
  "absolute inset-y-0 [background:repeating-linear-gradient(135deg,var(--ice)_0_3px,var(--surface)_3px_7px)]";
const WORDS = "flex min-w-0 items-center gap-2.5 font-normal whitespace-nowrap max-[900px]:col-span-full";

/** Two weeks from three days ago: when it is open, when it is closed, what was deployed. In the environment's time. */
export function Calendar({ view }: { view: View }) {
  const zone = useZone() ?? OWN;
  const first = addDays(startOfDay(new TZDate(view.now, zone)), -3);
  const days = Array.from({ length: DAYS }, (_, at) => addDays(first, at));
  return (
    <ol className="calendar list-none [&>li+li]:border-t [&>li+li]:border-t-line">
      {days.map((day) => (
        <Day key={day.toISOString()} day={day} view={view} zone={zone} />
      ))}
    </ol>
  );
}

/** Where within a day an instant lies, from 0 to 100. */
const within = (time: string | undefined, day: Date, otherwise: number) =>
  time === undefined ? otherwise : Math.min(100, Math.max(0, (new Date(time).getTime() - day.getTime()) / 864_000));

/** Whether the openings leave nothing of the day out. */
const covered = (open: View["open"], day: Date, next: Date) =>
  open.reduce(
    (sum, each) =>
      sum +
      Math.max(0, Math.min(+next, each.until ? +new Date(each.until) : +next) - Math.max(+day, +new Date(each.from))),
    0,
  ) >=
  +next - +day;

function Day({ day, view, zone }: { day: Date; view: View; zone: string }) {
  const inZone = { in: tz(zone) };
  const clock = (time: string) => format(time, "HH:mm", inZone);
  const today = isSameDay(day, view.now, inZone);
  const next = addDays(day, 1);
  const touches = (span: { from: string; until?: string }) =>
    new Date(span.from) < next && (span.until === undefined || new Date(span.until) > day);
  const open = view.open.filter(touches);
  const closed = view.closed.filter(touches);
  const deployments = view.deployments.filter((each) => isSameDay(each.from, day, inZone));
  const words =
    closed.length > 0
      ? closed.map((each) => each.words).join(", ")
      : covered(open, day, next)
        ? "open all day"
        : open.length > 0
          ? open.map((each) => `${clock(each.from)}–${each.until ? clock(each.until) : ""}`).join(", ")
          : view.hours
            ? "not open"
            : "open all day";
  return (
    <li className={`${DAY} ${today ? "font-semibold" : ""}`}>
      <span>
        <b>{format(day, "EEE")}</b> {format(day, "d MMM")}
      </span>
      <span className={LINE} aria-hidden="true">
        {(view.hours ? open : [{ from: day.toISOString() }]).map((each) => (
          <i
            key={each.from}
            className={OPEN}
            style={{
              left: `${within(each.from, day, 0)}%`,
              right: `${100 - within("until" in each ? each.until : undefined, day, 100)}%`,
            }}
          />
        ))}
        {closed.map((each) => (
          <i
            key={each.from}
            className={CLOSED}
            style={{ left: `${within(each.from, day, 0)}%`, right: `${100 - within(each.until, day, 100)}%` }}
          />
        ))}
        {deployments.map((each) => (
          <i
            key={each.deployment}
            className="absolute inset-y-0 w-0.75 bg-ink"
            style={{ left: `${within(each.from, day, 0)}%` }}
          />
        ))}
        {today && <i className="absolute inset-y-0 w-0.5 bg-ink-2" style={{ left: `${within(view.now, day, 0)}%` }} />}
      </span>
      <span className={WORDS}>
        {closed.length > 0 && <Glyph shape="closed" tone="ice" />}
        <span className="min-w-15 flex-auto truncate text-ink-2" title={words}>
          {words}
        </span>
        {deployments.slice(0, 1).map((each) => (
          <Link
            key={each.deployment}
            className="inline-flex min-w-0 items-center gap-1 text-[12px]"
            to={`/deployments/${each.deployment}`}
            title={`${each.component} ${each.version}, ${each.kind}, ${deploymentState(each.status).word}`}
          >
            <Glyph shape={deploymentState(each.status).shape} tone={deploymentState(each.status).tone} />
            <span className="truncate">
              {each.component} {each.version}
            </span>
          </Link>
        ))}
        {deployments.length > 1 && <span className="quiet">and {deployments.length - 1} more</span>}
      </span>
    </li>
  );
}
