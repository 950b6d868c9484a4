import { type Schemas } from "../../api/client";
import { PLAIN, PROBLEMS } from "../../design/classes";

/** The first line that is not the same, from 1. */
export function firstDifference(before: string, text: string): number {
  const was = before.split("\n");
  return (
    Math.max(
      0,
      text.split("\n").findIndex((line, at) => line !== was[at]),
    ) + 1
  );
}

/** What is wrong, or what loading it would change. */
export function Checked({ check, error }: { check: Schemas["FileCheckView"] | undefined; error: Error | undefined }) {
  if (error)
    return (
      <p className="bad" role="alert">
        It could not be checked: {error.message}
      </p>
    );
  if (!check) return <p className="quiet">Checking…</p>;
  if (check.problems.length > 0) {
    return (
      <div className={PROBLEMS} role="status">
        <h2>{check.problems.length === 1 ? "1 problem" : `${check.problems.length} problems`}</h2>
        <ul className={PLAIN}>
          {check.problems.slice(0, 12).map((problem) => (
            <li key={`${problem.line} ${problem.message}`}>
              <span className="bad">line {problem.line}</span> {problem.path && <code>{problem.path}</code>}{" "}
              {problem.message}
            </li>
          ))}
        </ul>
      </div>
    );
  }
  return (
    <div className={PROBLEMS} role="status">
      <h2>{check.changes.length === 0 ? "Nothing changes" : "What changes"}</h2>
      <ul className={PLAIN}>
        {check.changes.map((change) => (
          <li key={`${change.environment} ${change.what}`}>
            <b>{change.environment}</b> {change.what}
          </li>
        ))}
      </ul>
      {check.loosens.length > 0 && (
        <>
          <h2 className="warn">What is asked less</h2>
          <ul className={PLAIN}>
            {check.loosens.map((each) => (
              <li key={`${each.environment} ${each.what}`}>
                <b>{each.environment}</b> {each.what}
              </li>
            ))}
          </ul>
        </>
      )}
      <ul className={PLAIN}>
        {check.warnings.map((problem) => (
          <li key={`${problem.line} ${problem.message}`}>
            <span className="warn">line {problem.line}, a warning</span>{" "}
            {problem.path && <code>{`${problem.path} `}</code>}
            {problem.message}
          </li>
        ))}
      </ul>
    </div>
  );
}
