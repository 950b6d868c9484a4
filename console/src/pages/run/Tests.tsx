import { useQuery } from "@tanstack/react-query";
import { evidence } from "../../api/queries";
import type { Schemas } from "../../api/client";
import { Bars } from "../../design/Spark";
import { StateWord } from "../../design/Glyph";
import { Loading, Trouble } from "../../design/parts";
import { workState } from "../../design/states";
import { newestOf } from "./Reports";
import { Wide } from "../../design/Wide";
import { REPORT_PART } from "./classes";

type TestsView = Schemas["TestsView"];

const MESSAGE = "basis-full pl-6 text-[12.5px] wrap-anywhere text-ink-2";
const OUTPUT =
  "mt-1.5 mb-1 max-h-75 overflow-auto rounded-[var(--r-1)] border border-line bg-log px-3 py-2 " +
  "wrap-anywhere whitespace-pre-wrap [font:450_12.5px/19px_var(--font-mono)]";

/** Tests of a run: failures with their output first, then what changed, the slowest, and the trend. */
export default function Tests({ component, number }: { component: string; number: number }) {
  const found = useQuery(evidence(component, number));
  if (found.isPending) return <Loading height={300} />;
  if (found.isLoadingError) return <Trouble error={found.error} />;
  const tests = newestOf(found.data.tests);
  const trend = found.data.trend.filter((point) => point.tests !== undefined);
  if (tests.length === 0)
    return (
      <p className="empty">
        No stage of this run reported tests. A stage reports them with{" "}
        <code>reports: {"{tests: build/tests/*.xml}"}</code>.
      </p>
    );
  return (
    <div className={`${REPORT_PART} sheet`}>
      {tests.map((each) => (
        <OneStage key={`${each.stage} ${each.variant}`} view={each} several={tests.length > 1} />
      ))}
      <Bars
        caption="Tests of the last runs of this branch"
        bars={trend.map((point) => ({
          label: `#${point.number}`,
          parts: [
            { value: point.failed ?? 0, tone: "bad", word: "failed" },
            { value: point.skipped ?? 0, tone: "rest", word: "skipped" },
            { value: (point.tests ?? 0) - (point.failed ?? 0) - (point.skipped ?? 0), tone: "good", word: "passed" },
          ],
        }))}
      />
    </div>
  );
}

function OneStage({ view, several }: { view: TestsView; several: boolean }) {
  const { tests, newlyFailing, flaky } = view;
  const fresh = new Set(newlyFailing);
  const unsteady = new Set(flaky);
  return (
    <section>
      <h2>
        {several && (
          <>
            {view.stage} {view.variant}:{" "}
          </>
        )}
        {tests.total.toLocaleString()} tests, {tests.failed} failed, {tests.skipped} skipped, in{" "}
        {tests.seconds.toFixed(1)} s
      </h2>
      {tests.failures.length === 0 && (
        <p className="quiet">
          None failed.{tests.mended.length > 0 && ` Mended since #${view.since}: ${tests.mended.join(", ")}.`}
        </p>
      )}
      {tests.failures.map((failure) => (
        <details key={failure.name} className="border-t border-t-line py-1.5">
          <summary className="flex cursor-pointer flex-wrap gap-2.5">
            <StateWord state={workState("failed")}>{failure.name}</StateWord>
            <span className="quiet">
              {fresh.has(failure.name) ? "newly failing" : view.since ? "failed before" : ""}
              {unsteady.has(failure.name) && ", flaky"}
            </span>
            {failure.message && <code className={MESSAGE}>{failure.message}</code>}
          </summary>
          <pre className={OUTPUT} tabIndex={0}>
            {failure.output || "No output"}
          </pre>
        </details>
      ))}
      <details>
        <summary className="quiet">The slowest</summary>
        <Wide label="The slowest tests">
          <table>
            <tbody>
              {tests.slowest.map((slow) => (
                <tr key={slow.name}>
                  <td>{slow.name}</td>
                  <td className="number">{slow.seconds.toFixed(3)} s</td>
                </tr>
              ))}
            </tbody>
          </table>
        </Wide>
      </details>
    </section>
  );
}
