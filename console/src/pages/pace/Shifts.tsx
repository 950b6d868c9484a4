import { useQuery } from "@tanstack/react-query";
import { Link, useNavigate, useSearchParams } from "react-router";
import {
  CartesianGrid,
  ReferenceLine,
  ResponsiveContainer,
  Scatter,
  ScatterChart,
  Tooltip,
  XAxis,
  YAxis,
} from "recharts";
import { api, need, type Schemas } from "../../api/client";
import { Loading, Trouble } from "../../design/parts";
import { At } from "../../design/time";
import { length, marks, percent } from "./parts";
import { Wide } from "../../design/Wide";

type Shift = Schemas["ShiftView"];

/** When a stage, or the deployments into an environment, became slower or began to fail, and what was otherwise. */
export default function Shifts() {
  const [params] = useSearchParams();
  const component = params.get("component") ?? "";
  const stage = params.get("stage") ?? undefined;
  const environment = params.get("environment") ?? undefined;
  const named = component !== "" && (stage ?? environment) !== undefined;
  const asked = useQuery({
    enabled: named,
    queryKey: ["pace", "shifts", component, stage, environment],
    queryFn: () => need(api.GET("/api/v1/pace/shifts", { params: { query: { component, stage, environment } } })),
  });
  const of = !named ? "A stage" : stage ? `${stage} of ${component}` : `${component} into ${environment}`;
  const path = (number: number) => (stage ? `/runs/${component}/${number}` : `/deployments/${number}`);
  return (
    <>
      <title>{`${of} lately · Paseo`}</title>
      <div className="title-line">
        <h1>{of}, lately</h1>
        <p>
          When it became slower or began to fail, and what was otherwise from then on. <Link to="/pace">Pace</Link>
        </p>
      </div>
      {!named && (
        <p className="empty">
          Of which stage, or of the deployments into which environment? Choose one of the stages on{" "}
          <Link to="/pace">Pace</Link>, or open what is live in an environment on <Link to="/">Whereabouts</Link>.
        </p>
      )}
      {named && asked.isPending && <Loading height={420} />}
      {asked.isLoadingError && <Trouble error={asked.error} />}
      {asked.data?.points.length === 0 && <p className="empty">There was none yet.</p>}
      {asked.data && asked.data.points.length > 0 && (
        <>
          <Picture of={asked.data} path={path} />
          {asked.data.shifts.length === 0 && (
            <p className="sheet mt-5 p-5">
              It did not move by more than it varies. A shift is told where at least four are on each side of it, the
              median moved by a quarter and a second, or failures by 30 of 100.
            </p>
          )}
          {asked.data.shifts.map((shift) => (
            <Told
              key={`${shift.kind} ${shift.point}`}
              shift={shift}
              first={asked.data.points[shift.point]!}
              what={stage ? "run" : "deployment"}
              path={path}
            />
          ))}
        </>
      )}
    </>
  );
}

const BAD: Shift["kind"][] = ["slower", "fails-more"];

interface PictureProps {
  of: Schemas["ShiftsView"];
  path: (number: number) => string;
}

/** Each as a point, as high as it took long; where it moved, a line. */
function Picture({ of: { points, shifts }, path }: PictureProps) {
  const navigate = useNavigate();
  const ticks = marks(1.1 * Math.max(...points.map((each) => each.seconds)));
  const rows = points.map((each, at) => ({ ...each, place: at + 1 }));
  const go = (point: unknown) => void navigate(path((point as { number: number }).number));
  const AXIS = { stroke: "var(--ink-3)", fontSize: 12, tickLine: false } as const;
  return (
    <section className="sheet p-5" aria-label="How long each took">
      <ResponsiveContainer width="100%" height={280}>
        <ScatterChart margin={{ left: 12, right: 12 }}>
          <CartesianGrid vertical={false} stroke="var(--line)" />
          <XAxis type="number" dataKey="place" domain={[0, points.length + 1]} hide />
          <YAxis
            type="number"
            dataKey="seconds"
            domain={[0, ticks.at(-1)!]}
            ticks={ticks}
            {...AXIS}
            axisLine={false}
            width={80}
            tickFormatter={(value: number) => length(value)}
          />
          <Tooltip cursor={false} content={<Tip />} isAnimationActive={false} />
          {shifts.map((each) => (
            <ReferenceLine
              key={`${each.kind} ${each.point}`}
              x={each.point + 0.5}
              stroke={BAD.includes(each.kind) ? "var(--bad)" : "var(--good)"}
              strokeDasharray="4 3"
            />
          ))}
          <Scatter
            data={rows.filter((each) => !each.failed)}
            fill="var(--ice)"
            isAnimationActive={false}
            onClick={go}
          />
          <Scatter
            data={rows.filter((each) => each.failed)}
            fill="var(--bad)"
            shape="cross"
            isAnimationActive={false}
            onClick={go}
          />
        </ScatterChart>
      </ResponsiveContainer>
      <p className="flex flex-wrap gap-x-4 text-[12px] text-ink-2">
        <span>
          From <At time={points[0]!.at} /> to <At time={points.at(-1)!.at} />, {points.length} in all
        </span>
        <span className="inline-flex items-center gap-1.5">
          <i className="inline-block h-[8px] w-[8px] rounded-full" style={{ background: "var(--ice)" }} />
          passed
        </span>
        <span className="inline-flex items-center gap-1.5">
          <b className="bad">+</b>
          failed
        </span>
        <span>a dashed line: where it moved</span>
      </p>
    </section>
  );
}

function Tip({ payload }: { payload?: readonly { payload: Schemas["PointView"] }[] }) {
  const point = payload?.[0]?.payload;
  if (!point) return null;
  return (
    <div className="rounded border border-line bg-raised px-3 py-2 text-[12px]">
      <b>
        {point.number}, {point.version}
      </b>
      <br />
      {length(point.seconds)}
      {point.failed && ", failed"}, <At time={point.at} />
    </div>
  );
}

/** What a shift is, in words. */
function words({ kind, before, after }: Shift): [string, string] {
  if (kind === "slower") return ["Slower", `${length(after)} instead of ${length(before)}`];
  if (kind === "faster") return ["Faster", `${length(after)} instead of ${length(before)}`];
  const than = `${percent(after)} instead of ${percent(before)}`;
  return kind === "fails-more" ? ["Fails more often", than] : ["Fails less often", than];
}

interface ToldProps {
  shift: Shift;
  first: Schemas["PointView"];
  what: string;
  path: (number: number) => string;
}

function Told({ shift, first, what, path }: ToldProps) {
  const [word, than] = words(shift);
  return (
    <section className="sheet mt-5 p-5">
      <h2 className="m-0">
        <span className={BAD.includes(shift.kind) ? "bad" : "good"}>{word}</span>: {than}
      </h2>
      <p className="mt-1 mb-3 text-[13px] text-ink-2">
        Since{" "}
        <Link to={path(first.number)}>
          {what} {first.number}
        </Link>{" "}
        of {first.version}, <At time={shift.at} />
      </p>
      {shift.differences.length === 0 ? (
        <p className="m-0 text-[13px]">Nothing that is known was otherwise before.</p>
      ) : (
        <Wide label="What was otherwise">
          <table>
            <thead>
              <tr>
                <th>Otherwise since then</th>
                <th>Before</th>
                <th>Since</th>
              </tr>
            </thead>
            <tbody>
              {shift.differences.map((each) => (
                <tr key={each.fact}>
                  <td>
                    <b>{each.fact}</b>
                  </td>
                  <td>
                    <Values of={each.before} />
                  </td>
                  <td>
                    <Values of={each.after} />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </Wide>
      )}
    </section>
  );
}

const Values = ({ of }: { of: Schemas["ValueView"][] }) =>
  of.map(({ value, count, of: all }) => (
    <span key={value} className="block [overflow-wrap:anywhere]">
      {value}{" "}
      <span className="quiet">
        {count} of {all}
      </span>
    </span>
  ));
