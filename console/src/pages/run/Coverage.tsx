import { useQuery } from "@tanstack/react-query";
import { evidence } from "../../api/queries";
import { Bars } from "../../design/Spark";
import { Loading, Trouble } from "../../design/parts";
import { newestOf, percent } from "./Reports";
import { Wide } from "../../design/Wide";
import { REPORT_PART } from "./classes";

/** Coverage of a run by package, the least covered first, with the change and the trend. */
export default function Coverage({ component, number }: { component: string; number: number }) {
  const found = useQuery(evidence(component, number));
  if (found.isPending) return <Loading height={300} />;
  if (found.isLoadingError) return <Trouble error={found.error} />;
  const all = newestOf(found.data.coverage);
  const trend = found.data.trend.filter((point) => point.lines !== undefined);
  if (all.length === 0)
    return (
      <p className="empty">
        No stage of this run reported coverage. A stage reports it with{" "}
        <code>reports: {"{coverage: build/coverage.xml}"}</code>.
      </p>
    );
  return (
    <div className={`${REPORT_PART} sheet`}>
      {all.map((each) => (
        <section key={`${each.stage} ${each.variant}`}>
          <h2>
            {each.lines === undefined ? "Lines not reported" : `${percent(each.lines)} of lines`}
            {each.branches !== undefined && `, ${percent(each.branches)} of branches`}
            {each.linesBefore !== undefined && (
              <small>
                {" "}
                {percent(each.linesBefore)} in #{each.since}
              </small>
            )}
          </h2>
          <Wide label={`Coverage of ${each.stage}`}>
            <table>
              <thead>
                <tr>
                  <th>Package</th>
                  <th className="number">Covered</th>
                  <th className="number">Lines</th>
                  <th className="number">Share</th>
                </tr>
              </thead>
              <tbody>
                {[...each.coverage.groups]
                  .sort(
                    (a, b) =>
                      a.lines.covered / Math.max(1, a.lines.total) - b.lines.covered / Math.max(1, b.lines.total),
                  )
                  .map((group) => (
                    <tr key={group.name}>
                      <td>{group.name || "without a name"}</td>
                      <td className="number">{group.lines.covered}</td>
                      <td className="number">{group.lines.total}</td>
                      <td className="number">{percent(group.lines.covered / Math.max(1, group.lines.total))}</td>
                    </tr>
                  ))}
              </tbody>
            </table>
          </Wide>
        </section>
      ))}
      <Bars
        caption="Lines covered, in percent, in the last runs of this branch"
        bars={trend.map((point) => ({
          label: `#${point.number}`,
          parts: [{ value: Math.round((point.lines ?? 0) * 1000) / 10, tone: "good", word: "% covered" }],
        }))}
      />
    </div>
  );
}
