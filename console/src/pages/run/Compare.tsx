import { useQuery } from "@tanstack/react-query";
import { useSearchParams } from "react-router";
import { comparison } from "../../api/queries";
import { componentRuns } from "../../api/components";
import type { Schemas } from "../../api/client";
import { StateWord } from "../../design/Glyph";
import { Loading, Trouble } from "../../design/parts";
import { workState } from "../../design/states";
import { PLAIN } from "../../design/classes";
import { Wide } from "../../design/Wide";
import { REPORT_PART } from "./classes";

const COMPARE_WITH = "flex items-center gap-2.5 text-[13px] [&_select]:max-w-130";

type Value = Schemas["ComparedValue"];

/** A run held against another one of its component. */
export default function Compare({ component, number, branch }: { component: string; number: number; branch: string }) {
  const [params, setParams] = useSearchParams();
  const runs = useQuery(componentRuns(component, 50));
  const others = runs.data?.filter((run) => run.number !== number) ?? [];
  const usual = others.find((run) => run.branch === branch && run.number < number) ?? others[0];
  const other = Number(params.get("with") ?? usual?.number ?? 0);
  const found = useQuery({ ...comparison(component, number, other), enabled: other > 0 });
  if (runs.data && others.length === 0) return <p className="empty">There is no other run of {component} yet.</p>;
  return (
    <div className={`${REPORT_PART} sheet`}>
      <label className={COMPARE_WITH}>
        Against
        <select
          value={other}
          onChange={(event) =>
            setParams(
              (before) => {
                before.set("with", event.target.value);
                return before;
              },
              { replace: true },
            )
          }
        >
          {others.map((run) => (
            <option key={run.number} value={run.number}>
              #{run.number} {run.status}, {run.branch}: {run.commitSummary.slice(0, 60)}
            </option>
          ))}
        </select>
      </label>
      {found.isError && <Trouble error={found.error} />}
      {found.isPending ? <Loading height={200} /> : found.data && <Shown view={found.data} />}
    </div>
  );
}

function Shown({ view }: { view: Schemas["RunComparisonView"] }) {
  return (
    <>
      {view.commits.length > 0 && (
        <>
          <h2>Commits since</h2>
          <ul className={PLAIN}>
            {view.commits.map((commit) => (
              <li key={commit.id}>
                <code>{commit.id.slice(0, 8)}</code> {commit.summary} <span className="quiet">{commit.author}</span>
              </li>
            ))}
          </ul>
        </>
      )}
      <h2>Stages</h2>
      <Wide label="Stages">
        <table>
          <thead>
            <tr>
              <th>Stage</th>
              <th>#{view.before.number}</th>
              <th>#{view.after.number}</th>
              <th className="number">Seconds</th>
              <th className="number">Change</th>
            </tr>
          </thead>
          <tbody>
            {view.stages.map((stage) => (
              <tr key={stage.stage}>
                <td>{stage.stage}</td>
                <td>{stage.before ? <StateWord state={workState(stage.before)} /> : "none"}</td>
                <td>{stage.after ? <StateWord state={workState(stage.after)} /> : "none"}</td>
                <td className="number">
                  {stage.secondsBefore?.toFixed(1) ?? "–"} → {stage.secondsAfter?.toFixed(1) ?? "–"}
                </td>
                <td className="number">{change(stage.secondsBefore, stage.secondsAfter)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
      <Values title="Figures" values={view.figures} />
      <Values title="Tests" values={view.tests} />
      <Values title="Taken" values={view.takes} />
      <Values title="Pieces of the pipeline file" values={view.pieces} />
      <Values title="Answers" values={view.answers} />
      <Values title="Artifacts" values={view.artifacts} />
    </>
  );
}

const change = (before: number | undefined, after: number | undefined) =>
  before === undefined || after === undefined
    ? ""
    : `${after >= before ? "+" : "−"}${Math.abs(after - before).toFixed(1)}`;

const short = (text: string | undefined) =>
  text === undefined ? "–" : /^[0-9a-f]{64}$/.test(text) ? text.slice(0, 8) : text;

function Values({ title, values }: { title: string; values: Value[] }) {
  if (values.length === 0) return null;
  return (
    <>
      <h2>{title}</h2>
      <Wide label={title}>
        <table>
          <tbody>
            {values.map((value) => (
              <tr key={value.name}>
                <td>{value.name}</td>
                <td>{short(value.before)}</td>
                <td>→ {short(value.after)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
    </>
  );
}
