import { useState } from "react";
import { Link } from "react-router";
import { api, need, type Schemas } from "../../api/client";
import { Refused, useTrying, wrongAt } from "../../design/form";
import { PLAIN, RUN_SIDE, START } from "../../design/classes";

type View = Schemas["TrialView"];
type Tried = Schemas["TriedView"];

const WORDS: Record<Tried["outcome"], string> = {
  unchanged: "says the same",
  changed: "good, and says something else",
  broken: "would be refused",
  "not-taken": "asks for another version",
};

const CHANGES = "m-0 mt-1 overflow-x-auto rounded-[4px] bg-log p-2 font-mono text-[12px] leading-[18px]";

/** A new version of the pieces, read with everybody's file; nothing is kept or started. */
export function Trial({ name, branches, main }: { name: string; branches: string[]; main: string }) {
  const [branch, setBranch] = useState(branches.find((each) => each !== main) ?? main);
  const [view, setView] = useState<View>();
  const { trying, busy, refused } = useTrying();
  const attempt = () =>
    trying(async () =>
      setView(
        await need(
          api.POST("/api/v1/components/{name}/pieces/trials", { params: { path: { name } }, body: { branch } }),
        ),
      ),
    );
  return (
    <aside className={RUN_SIDE}>
      <form
        className={START}
        onSubmit={(event) => {
          event.preventDefault();
          void attempt();
        }}
      >
        <h2>Try a new version</h2>
        <p className="text-[13px] text-ink-2">
          Reads the file of everybody who uses them as it would be. Nothing is kept, and nothing starts.
        </p>
        <label>
          The pieces of
          <select
            value={branch}
            onChange={(event) => {
              setBranch(event.target.value);
              setView(undefined);
            }}
          >
            {branches.map((each) => (
              <option key={each}>{each}</option>
            ))}
          </select>
        </label>
        <button type="submit" className="btn" disabled={busy || branches.length === 0}>
          {busy ? "Trying…" : "Try it with everybody"}
        </button>
        <Refused refused={refused} beside={wrongAt(refused, "/branch") ? ["/branch"] : []} />
      </form>
      {view && <Outcome view={view} />}
    </aside>
  );
}

function Outcome({ view }: { view: View }) {
  if (view.problems.length > 0) {
    return (
      <div role="status">
        <p className="bad">It has problems of its own, so nobody&apos;s file was tried with it.</p>
        <Problems problems={view.problems} />
      </div>
    );
  }
  const broken = view.users.filter((user) => user.outcome === "broken").length;
  return (
    <div role="status">
      <p className={broken > 0 ? "bad" : ""}>
        As it would be in <b>{view.version}</b>:{" "}
        {view.users.length === 0
          ? "nobody uses a piece of it"
          : broken > 0
            ? `${broken} of ${view.users.length} would be refused`
            : `good for all ${view.users.length}`}
        .
      </p>
      {view.users.map((user) => (
        <details key={user.component} open={user.outcome === "broken" || view.users.length < 4} className="mt-3">
          <summary className="cursor-pointer">
            <Link to={`/components/${user.component}/pipeline`}>{user.component}</Link>{" "}
            <span className={user.outcome === "broken" ? "bad" : "text-ink-2"}>{WORDS[user.outcome]}</span>
          </summary>
          <Problems problems={user.problems} />
          {user.changes.length > 0 && (
            <pre tabIndex={0} aria-label={`What changes for ${user.component}`} className={CHANGES}>
              {user.changes.map((line, at) => (
                <span
                  key={at}
                  className={`block ${line.startsWith("+") ? "good" : line.startsWith("-") ? "bad" : "text-ink-2"}`}
                >
                  {line || " "}
                </span>
              ))}
            </pre>
          )}
        </details>
      ))}
    </div>
  );
}

const Problems = ({ problems }: { problems: Schemas["Problem"][] }) => (
  <ul className={`${PLAIN} text-[13px]`}>
    {problems.map((problem) => (
      <li key={`${problem.line}:${problem.column} ${problem.message}`}>
        <span className="bad">line {problem.line}</span> {problem.path && <code>{problem.path}</code>} {problem.message}
      </li>
    ))}
  </ul>
);
