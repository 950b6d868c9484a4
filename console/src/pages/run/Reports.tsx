import { useQuery } from "@tanstack/react-query";
import { evidence } from "../../api/queries";
import type { Schemas } from "../../api/client";
import { Loading } from "../../design/parts";
import { Spark } from "../../design/Spark";

type Evidence = Schemas["EvidenceView"];
type Point = Schemas["TrendPoint"];

export const counted = (count: number, word: string) => `${count} ${word}${count === 1 ? "" : "s"}`;

export const percent = (share: number) => `${(share * 100).toFixed(1)}\u00a0%`;

/** The newest attempt of each stage counts. */
export function newestOf<T extends { stage: string; variant: string; attempt: number }>(all: T[]): T[] {
  const byStage = new Map<string, T>();
  all.forEach((each) => {
    const key = `${each.stage} ${each.variant}`;
    if ((byStage.get(key)?.attempt ?? 0) <= each.attempt) byStage.set(key, each);
  });
  return [...byStage.values()];
}

const values = (trend: Point[], of: (point: Point) => number | undefined) => trend.flatMap((point) => of(point) ?? []);

/** The reports of a run in three figures, each with its trend on this branch. */
export function Reports({ component, number }: { component: string; number: number }) {
  const found = useQuery(evidence(component, number));
  if (found.isPending)
    return (
      <section className="reports" aria-label="Reports">
        <h2>Reports</h2>
        <Loading height={210} />
      </section>
    );
  if (!found.data) return null;
  const { tests, coverage, findings, parts, found: totals, trend } = found.data;
  if (tests.length + coverage.length + findings.length + parts.length === 0)
    return (
      <section className="reports" aria-label="Reports">
        <h2>Reports</h2>
        <p className="quiet">No stage has reported anything.</p>
      </section>
    );
  return (
    <section className="reports" aria-label="Reports">
      <h2>
        Reports <small>{trend.length > 1 ? `the last ${trend.length} runs` : "the first of this branch"}</small>
      </h2>
      {tests.length > 0 && <Tests tests={newestOf(tests)} trend={trend} />}
      {coverage.length > 0 && <Coverage coverage={newestOf(coverage)} trend={trend} />}
      {totals && <Findings findings={newestOf(findings)} found={totals} trend={trend} />}
      {parts.length > 0 && <PartsFigure parts={newestOf(parts)} />}
    </section>
  );
}

function PartsFigure({ parts }: { parts: Evidence["parts"] }) {
  const unlicensed = parts.reduce((sum, each) => sum + each.parts.unlicensed, 0);
  return (
    <Figure
      name="parts"
      figure={parts.reduce((sum, each) => sum + each.parts.total, 0).toLocaleString()}
      words={unlicensed > 0 ? `${unlicensed} without a licence` : "each with a licence"}
      spark={null}
    />
  );
}

function Figure({
  name,
  figure,
  change,
  words,
  spark,
}: {
  name: string;
  figure: string;
  change?: { text: string; tone: string };
  words: string;
  spark: React.ReactNode;
}) {
  return (
    <div className="flex items-center justify-between gap-3 border-t border-t-line py-2">
      <div>
        <i className="block text-[12px] text-ink-2 not-italic">{name}</i>
        <b className="mr-2.5 text-[20px] leading-[26px] font-stretch-[104%]">{figure}</b>
        {change && <span className={`text-[13px] font-[560] ${change.tone}`}>{change.text}</span>}
        <p className="text-[12px] leading-4 text-ink-2">{words}</p>
      </div>
      {spark}
    </div>
  );
}

function Tests({ tests, trend }: { tests: Evidence["tests"]; trend: Point[] }) {
  const sum = (of: (summary: Schemas["TestSummary"]) => number) =>
    tests.reduce((total, each) => total + of(each.tests), 0);
  const failed = sum((each) => each.failed);
  const skipped = sum((each) => each.skipped);
  const fresh = tests.flatMap((each) => each.newlyFailing).length;
  const mended = tests.flatMap((each) => each.tests.mended).length;
  const flaky = new Set(tests.flatMap((each) => each.flaky)).size;
  const words = [
    `${failed} failed`,
    `${skipped} skipped`,
    mended > 0 && `${mended} mended`,
    flaky > 0 && `${flaky} flaky`,
  ]
    .filter(Boolean)
    .join(", ");
  return (
    <Figure
      name="tests"
      figure={sum((each) => each.total).toLocaleString()}
      words={words}
      change={fresh > 0 ? { text: `${fresh} newly failing since #${tests[0]?.since}`, tone: "bad" } : undefined}
      spark={
        <Spark
          values={values(trend, (point) => point.tests)}
          tone={failed > 0 ? "bad" : "good"}
          label="Tests in the last runs"
        />
      }
    />
  );
}

function Coverage({ coverage, trend }: { coverage: Evidence["coverage"]; trend: Point[] }) {
  const first = coverage[0];
  if (!first) return null;
  const change = first.linesBefore === undefined || first.lines === undefined ? 0 : first.lines - first.linesBefore;
  const least = [...first.coverage.groups].sort(
    (a, b) => a.lines.covered / Math.max(1, a.lines.total) - b.lines.covered / Math.max(1, b.lines.total),
  )[0];
  return (
    <Figure
      name="lines covered"
      figure={first.lines === undefined ? "not reported" : percent(first.lines)}
      words={
        least
          ? `least covered: ${least.name || "the package without a name"}, ` +
            percent(least.lines.covered / Math.max(1, least.lines.total))
          : "the report counts no line"
      }
      change={
        Math.abs(change) < 0.0005
          ? undefined
          : {
              text: `${Math.abs(change * 100).toFixed(1)} ${change > 0 ? "more" : "less"} than #${first.since}`,
              tone: change > 0 ? "good" : "warn",
            }
      }
      spark={
        <Spark
          values={values(trend, (point) => point.lines)}
          tone={change < 0 ? "warn" : "good"}
          label="Lines covered in the last runs"
        />
      }
    />
  );
}

function Findings({
  findings,
  found,
  trend,
}: {
  findings: Evidence["findings"];
  found: Schemas["FindingsTotals"];
  trend: Point[];
}) {
  const fresh = findings.flatMap((each) => each.appeared).length;
  const gone = findings.flatMap((each) => each.gone).length;
  return (
    <Figure
      name="findings"
      figure={found.total.toLocaleString()}
      words={
        `${counted(found.errors, "error")}, ${counted(found.warnings, "warning")}, ` +
        `${counted(found.notes, "note")}${gone > 0 ? `; ${gone} gone` : ""}`
      }
      change={fresh > 0 ? { text: `${fresh} new since #${findings[0]?.since}`, tone: "warn" } : undefined}
      spark={
        <Spark
          values={values(trend, (point) => point.findings)}
          tone={fresh > 0 ? "warn" : "good"}
          label="Findings in the last runs"
        />
      }
    />
  );
}
