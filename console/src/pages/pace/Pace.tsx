import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Download } from "lucide-react";
import { Link } from "react-router";
import { Bar, BarChart, CartesianGrid, Line, LineChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from "recharts";
import { api, need, type Schemas } from "../../api/client";
import { Loading, Trouble } from "../../design/parts";
import { At, lasting, useNow } from "../../design/time";
import { FacetForm, useFacets } from "../lists/FacetForm";
import { SINCE, told, type Facet } from "../lists/facets";
import { Looking } from "../history/Looking";
import { Views } from "../lists/Views";
import { barOf, length, marks, mostOf, PARTS, wordOf } from "./parts";
import { Stages } from "./Stages";
import { WaitedFor } from "./WaitedFor";
import { TITLE_END } from "../../design/classes";
import { Wide } from "../../design/Wide";

type Environment = Schemas["EnvironmentPaceView"];

const FACETS: Facet[] = ["environment", "component", "label", "since"];
const HOUR = 3_600_000;
const SLOWEST = 15;
const AXIS = { stroke: "var(--ink-3)", fontSize: 12, tickLine: false } as const;

/** How long versions take from what began them to going live, where the time goes, how often, and how safely. */
export default function Pace() {
  const [{ since, ...asks }] = useFacets(FACETS);
  const now = useNow(60_000).getTime();
  const from = Math.floor(now / 60_000) * 60_000 - (SINCE[since ?? ""] ?? SINCE["90d"]!).hours * HOUR;
  const query = { ...asks, since: new Date(from).toISOString() };
  const pace = useQuery({
    queryKey: ["pace", query],
    queryFn: () => need(api.GET("/api/v1/pace", { params: { query } })),
    placeholderData: keepPreviousData,
  });
  const slowest = useQuery({
    queryKey: ["pace", "lead-times", query],
    queryFn: () => need(api.GET("/api/v1/pace/lead-times", { params: { query: { ...query, limit: SLOWEST } } })),
    placeholderData: keepPreviousData,
  });
  const table = new URLSearchParams(query).toString();
  return (
    <>
      <title>Pace · Paseo</title>
      <div className="title-line">
        <h1>Pace</h1>
        <p>
          {told({ ...asks, since: since ?? "90d" }).replace("those", "promotions")}. <Looking but="Pace" />
        </p>
        <div className={`${TITLE_END} flex gap-2`}>
          <a className="btn" href={`/api/v1/pace/table?${table}`} download="pace.csv">
            <Download size={15} />
            As a table
          </a>
          <Views />
        </div>
      </div>
      <FacetForm title="Pace" facets={FACETS} />
      {pace.isPending && <Loading height={420} />}
      {pace.isLoadingError && <Trouble error={pace.error} />}
      {pace.data?.environments.length === 0 && (
        <p className="empty">Nothing went live in this time. What is promoted from now on is counted here.</p>
      )}
      {pace.data && pace.data.environments.length > 0 && (
        <>
          <Figures environments={pace.data.environments} />
          <div className="mt-5 grid gap-5 lg:grid-cols-2">
            <Where environments={pace.data.environments} />
            <Weeks environments={pace.data.environments} />
          </div>
          <WaitedFor environments={pace.data.environments} />
        </>
      )}
      {slowest.data && slowest.data.length > 0 && <Slowest promotions={slowest.data} />}
      {!asks.environment && <Stages component={asks.component} label={asks.label} since={query.since} />}
    </>
  );
}

const Figures = ({ environments }: { environments: Environment[] }) => (
  <section className="sheet p-5">
    <Wide label="Pace of each environment">
      <table className="[&_td]:whitespace-nowrap">
        <thead>
          <tr>
            <th>Environment</th>
            <th className="text-right">Went live</th>
            <th className="text-right">A week</th>
            <th className="text-right">Median</th>
            <th className="text-right">90 %</th>
            <th className="pl-8">Most of the time</th>
            <th className="text-right">Failed</th>
            <th className="text-right">Gone back from</th>
            <th className="text-right">Mended in</th>
          </tr>
        </thead>
        <tbody>
          {environments.map((each) => {
            const most = mostOf(each.parts);
            return (
              <tr key={each.environment}>
                <td>
                  <Link to={`/history?environment=${each.environment}`}>
                    <b>{each.environment}</b>
                  </Link>
                </td>
                <td className="text-right">{each.live}</td>
                <td className="text-right">{each.perWeek}</td>
                <td className="text-right">
                  <b>{length(each.median)}</b>
                </td>
                <td className="text-right">{length(each.ninety)}</td>
                <td className="pl-8">{most && `${most.percent} % ${wordOf(most.part)}`}</td>
                <td className="text-right">{each.failed}</td>
                <td className="text-right">{each.wentBack}</td>
                <td className="text-right">{length(each.mended)}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </Wide>
    <p className="quiet mt-2 text-[12px]">
      From the commit to going live; of a version that arrived, from its arrival. Mended in: how long what was gone back
      from was live.
    </p>
  </section>
);

const hours = (value: number) => (value >= 48 ? `${Math.round(value / 24)} d` : lasting(Math.round(value * 3600)));
const tipStyle = {
  contentStyle: { background: "var(--raised)", border: "1px solid var(--line)", borderRadius: 8, fontSize: 12 },
  labelStyle: { color: "var(--ink)", fontWeight: 600 },
  itemStyle: { color: "var(--ink-2)" },
  isAnimationActive: false,
} as const;

/** Where marks stand on an axis for so many seconds; what is drawn is in hours. */
function axis(seconds: number[]) {
  const ticks = marks(Math.max(0, ...seconds)).map((mark) => mark / 3600);
  return { ticks, domain: [0, ticks.at(-1)!] };
}

const average = ({ live, parts }: Environment) =>
  live ? parts.reduce((sum, each) => sum + each.seconds, 0) / live : 0;

const spent = ({ parts }: Environment, part: string) => parts.find((each) => each.part === part)?.seconds ?? 0;

/** What one promotion spends where, on average, by environment. */
const Where = ({ environments }: { environments: Environment[] }) => (
  <section className="sheet p-5" aria-label="Where the time goes">
    <h2 className="mb-3">Where the time of one goes, on average</h2>
    <ResponsiveContainer width="100%" height={60 + 54 * environments.length}>
      <BarChart layout="vertical" data={environments.map(barOf)} barSize={22}>
        <CartesianGrid horizontal={false} stroke="var(--line)" />
        <XAxis type="number" {...AXIS} {...axis(environments.map(average))} tickFormatter={hours} />
        <YAxis type="category" dataKey="environment" width={90} {...AXIS} axisLine={false} />
        <Tooltip
          {...tipStyle}
          cursor={{ fill: "var(--sunken)" }}
          formatter={(value, name) => [hours(Number(value)), name]}
        />
        {PARTS.map(({ part, word, colour }) => (
          <Bar key={part} dataKey={part} name={word} stackId="lead time" fill={colour} isAnimationActive={false} />
        ))}
      </BarChart>
    </ResponsiveContainer>
    <p className="flex flex-wrap gap-x-4 gap-y-1 text-[12px] text-ink-2">
      {PARTS.filter(({ part }) => environments.some((each) => spent(each, part) > 0)).map(({ part, word, colour }) => (
        <span key={part} className="inline-flex items-center gap-1.5">
          <i className="inline-block h-[10px] w-[10px]" style={{ background: colour }} />
          {word}
        </span>
      ))}
    </p>
  </section>
);

const LINES = ["var(--ice)", "var(--good)", "var(--need)", "var(--warn)", "var(--ink)"];

/** The median of each week, by environment. */
function Weeks({ environments }: { environments: Environment[] }) {
  const weeks = [...new Set(environments.flatMap((each) => each.weeks.map((week) => week.from)))].sort();
  const rows = weeks.map((from) => ({
    from,
    ...Object.fromEntries(
      environments.flatMap(({ environment, weeks: of }) =>
        of.filter((week) => week.from === from).map((week) => [environment, week.median / 3600]),
      ),
    ),
  }));
  const medians = environments.flatMap((each) => each.weeks.map((week) => week.median));
  return (
    <section className="sheet p-5" aria-label="The median, week by week">
      <h2 className="mb-3">The median, week by week</h2>
      <ResponsiveContainer width="100%" height={60 + 54 * environments.length}>
        <LineChart data={rows}>
          <CartesianGrid vertical={false} stroke="var(--line)" />
          <XAxis dataKey="from" {...AXIS} />
          <YAxis {...AXIS} {...axis(medians)} axisLine={false} width={84} tickFormatter={hours} />
          <Tooltip {...tipStyle} formatter={(value, name) => [hours(Number(value)), name]} />
          {environments.map(({ environment }, at) => (
            <Line
              key={environment}
              dataKey={environment}
              stroke={LINES[at % LINES.length]}
              strokeWidth={2}
              connectNulls
              isAnimationActive={false}
            />
          ))}
        </LineChart>
      </ResponsiveContainer>
      <p className="flex flex-wrap gap-x-4 text-[12px] text-ink-2">
        {environments.map(({ environment }, at) => (
          <span key={environment} className="inline-flex items-center gap-1.5">
            <i className="inline-block h-[3px] w-4" style={{ background: LINES[at % LINES.length] }} />
            {environment}
          </span>
        ))}
      </p>
    </section>
  );
}

const Slowest = ({ promotions }: { promotions: Schemas["LeadTimeView"][] }) => (
  <section className="sheet mt-5 p-5">
    <h2 className="mb-2">Those that took longest</h2>
    <Wide label="Those that took longest">
      <table>
        <thead>
          <tr>
            <th>Version</th>
            <th>Into</th>
            <th>Live</th>
            <th className="text-right">Took</th>
            <th>Where it went</th>
            <th>Deployment</th>
          </tr>
        </thead>
        <tbody>
          {promotions.map((each) => (
            <tr key={each.deployment}>
              <td>
                {each.component}{" "}
                <Link className="v" to={`/versions/${each.component}/${each.version}`}>
                  {each.version}
                </Link>
              </td>
              <td>{each.environment}</td>
              <td>
                <At time={each.live} />
              </td>
              <td className="text-right">{lasting(each.seconds)}</td>
              <td>
                <Strip of={each} />
                {each.badFor !== undefined && <span className="badge bad ml-2">gone back from</span>}
              </td>
              <td>
                <Link to={`/deployments/${each.deployment}`}>{each.deployment}</Link>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Wide>
  </section>
);

/** A lead time, as a line of its parts. */
const Strip = ({ of }: { of: Schemas["LeadTimeView"] }) => (
  <span
    className="inline-flex h-[10px] w-[220px] overflow-hidden align-middle"
    role="img"
    aria-label={of.parts.map(({ part, seconds }) => `${lasting(seconds)} ${wordOf(part)}`).join(", ")}
    title={of.parts.map(({ part, seconds }) => `${lasting(seconds)} ${wordOf(part)}`).join(", ")}
  >
    {of.parts.map(({ part, seconds }) => (
      <i
        key={part}
        style={{
          width: `${of.seconds === 0 ? 0 : (100 * seconds) / of.seconds}%`,
          background: PARTS.find((each) => each.part === part)?.colour,
        }}
      />
    ))}
  </span>
);
