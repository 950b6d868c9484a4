import { useQuery } from "@tanstack/react-query";
import { evidence } from "../../api/queries";
import type { Schemas } from "../../api/client";
import { Bars } from "../../design/Spark";
import { Loading, Trouble } from "../../design/parts";
import { counted, newestOf } from "./Reports";
import { Wide } from "../../design/Wide";
import { REPORT_PART } from "./classes";

const FINDINGS = "[&_td:first-child]:w-20 [&_td:nth-child(2)]:w-[42%] [&_td:nth-child(2)]:wrap-anywhere";

type Finding = Schemas["Finding"];

const TONES: Record<string, string> = { error: "bad", warning: "warn" };

/** Findings of a run: new, still there, gone. */
export default function Findings({ component, number }: { component: string; number: number }) {
  const found = useQuery(evidence(component, number));
  if (found.isPending) return <Loading height={300} />;
  if (found.isLoadingError) return <Trouble error={found.error} />;
  const all = newestOf(found.data.findings);
  const trend = found.data.trend.filter((point) => point.findings !== undefined);
  if (all.length === 0)
    return (
      <p className="empty">
        No stage of this run reported findings. A stage reports them with{" "}
        <code>reports: {"{findings: build/*.sarif}"}</code>.
      </p>
    );
  return (
    <div className={`${REPORT_PART} sheet`}>
      {all.map((each) => {
        const fresh = new Set(each.appeared.map((finding) => finding.fingerprint));
        const still = each.findings.results.filter((finding) => !fresh.has(finding.fingerprint));
        return (
          <section key={`${each.stage} ${each.variant}`}>
            <h2>
              {counted(each.findings.errors, "error")}, {counted(each.findings.warnings, "warning")},{" "}
              {counted(each.findings.notes, "note")}
            </h2>
            {each.appeared.length > 0 && <List title={`New since #${each.since}`} findings={each.appeared} />}
            {still.length > 0 && <List title={each.since ? "Still there" : "Found"} findings={still} />}
            {each.gone.length > 0 && <List title={`Gone since #${each.since}`} findings={each.gone} gone />}
          </section>
        );
      })}
      <Bars
        caption="Findings of the last runs of this branch"
        bars={trend.map((point) => ({
          label: `#${point.number}`,
          parts: [{ value: point.findings ?? 0, tone: "warn", word: "found" }],
        }))}
      />
    </div>
  );
}

function List({ title, findings, gone = false }: { title: string; findings: Finding[]; gone?: boolean }) {
  return (
    <>
      <h3>{title}</h3>
      <Wide label={title}>
        <table className={gone ? `${FINDINGS} quiet` : FINDINGS}>
          <tbody>
            {findings.map((finding) => (
              <tr key={finding.fingerprint}>
                <td className={TONES[finding.level] ?? "quiet"}>{finding.level}</td>
                <td>
                  <code>
                    {finding.file}
                    {finding.line && `:${finding.line}`}
                  </code>
                </td>
                <td>
                  {finding.message} <span className="quiet">{finding.rule}</span>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
    </>
  );
}
