import { Link } from "react-router";
import { StateWord } from "../../design/Glyph";
import { deploymentState, workState } from "../../design/states";
import { At, exactOf, lengthOf, useNow } from "../../design/time";
import { rowsOf, spanOf, stretchesOf, sums, type Led, type Row, type Stretch } from "./chain";
import { Wide } from "../../design/Wide";

const FOLLOWED =
  "mt-2 mx-0 mb-5 overflow-hidden [&>header]:flex [&>header]:flex-wrap [&>header]:items-baseline " +
  "[&>header]:gap-y-1 [&>header]:gap-x-4 [&>header]:pt-3.5 [&>header]:px-5 [&>header]:pb-2.5 " +
  "[&_td:first-child]:whitespace-nowrap [&_th:first-child]:pl-5";
const SPENT = "absolute top-0 h-3 rounded-[2px] [&.working]:bg-ink";

const FOLLOWED_KEY =
  "flex flex-wrap gap-x-4 gap-y-1 ml-auto text-[12px] text-ink-2 [&>span]:inline-flex [&>span]:items-center " +
  "[&>span]:gap-1.5 [&_.spent]:static [&_.spent]:w-5.5 [&_.spent]:inline-block";
const LANE = "relative h-3 [background:linear-gradient(var(--line),var(--line))_0_50%_/_100%_1px_no-repeat]";

const KINDS: [Stretch["kind"], string][] = [
  ["waiting", "waiting (its turn, a gate)"],
  ["queueing", "queueing (for agents)"],
  ["working", "working"],
];

const length = (millis: number) => lengthOf(new Date(0).toISOString(), new Date(millis));

/** One change's walk through all components as one picture: what led to what, and where the time went. */
export function Walked({ sentence, at, tree }: { sentence: string; at: string; tree: Led[] }) {
  const now = useNow();
  const rows = rowsOf(tree);
  if (rows.length === 0) return <p className="empty">{sentence} led to nothing.</p>;
  const span = spanOf(rows, now.getTime());
  const sum = sums(rows);
  return (
    <section className={`sheet followed ${FOLLOWED}`} aria-label={`What ${sentence} led to`}>
      <header>
        <h2>{sentence}</h2>
        <span className="quiet">
          <At time={at} />, {length(span.to - span.from)} in all
        </span>
        <span className={FOLLOWED_KEY}>
          {KINDS.map(([kind, words]) => (
            <span key={kind}>
              <i className={`spent ${SPENT} ${kind}`} /> {words} {length(sum[kind])}
            </span>
          ))}
        </span>
      </header>
      <Wide label="Runs and deployments, in the order in which one led to another">
        <table>
          <thead>
            <tr>
              <th>What</th>
              <th>State</th>
              <th>Version</th>
              <th className="w-[52%] min-w-65 pr-5">Where the time went</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row, at) => (
              <Line key={`${row.led.kind} ${row.led.component} ${row.led.number ?? at}`} row={row} span={span} />
            ))}
          </tbody>
        </table>
      </Wide>
    </section>
  );
}

function Line({ row: { led, depth }, span }: { row: Row; span: { from: number; to: number } }) {
  const indent = { paddingLeft: 20 + depth * 18 };
  if (led.kind === "nothing") {
    return (
      <tr className="[&_td]:text-ink-2">
        <td style={indent}>{led.component}</td>
        <td colSpan={3}>
          <span className="quiet">no run started ({led.where}):</span> {led.reason}
        </td>
      </tr>
    );
  }
  const run = led.kind === "run";
  const state = run ? workState(led.status) : deploymentState(led.status);
  const to = run ? `/runs/${led.component}/${led.number}` : `/deployments/${led.number}`;
  return (
    <tr>
      <td style={indent}>
        <Link to={to}>{run ? `${led.component}#${led.number}` : `into ${led.where}`}</Link>
        {run && led.where !== "main" && <span className="quiet"> on {led.where}</span>}
      </td>
      <td title={led.reason}>
        <StateWord state={state} />
      </td>
      <td className="v">{led.version}</td>
      <td className="w-[52%] min-w-65 pr-5">
        <div
          className={LANE}
          title={[
            exactOf(led.at),
            led.spent &&
              `waiting ${length(led.spent.waiting)}, queueing ${length(led.spent.queueing)}, ` +
                `working ${length(led.spent.working)}`,
          ]
            .filter(Boolean)
            .join("; ")}
        >
          {stretchesOf(led, span).map((stretch) => (
            <i
              key={stretch.kind}
              className={`spent ${SPENT} ${stretch.kind}`}
              style={{ left: `${stretch.from * 100}%`, width: `max(3px, ${stretch.width * 100}%)` }}
            />
          ))}
        </div>
        {(led.used.length > 0 || led.kept > 0) && (
          <span className="quiet block text-[12px] leading-4 mt-0.5">
            not built again:{" "}
            {[
              ...led.used.map((each) => `${each.component} ${each.version}`),
              ...(led.kept > 0 ? [`${led.kept} ${led.kept === 1 ? "stage" : "stages"} began with kept folders`] : []),
            ].join(", ")}
          </span>
        )}
      </td>
    </tr>
  );
}
