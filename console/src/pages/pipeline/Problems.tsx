import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { type Schemas } from "../../api/client";
import { pipelineHistory } from "../../api/components";
import { At } from "../../design/time";
import { PLAIN, PROBLEMS } from "../../design/classes";

export const Used = ({ pieces }: { pieces: Schemas["Used"][] }) => (
  <section aria-label="Pieces">
    <h2>Pieces</h2>
    <ul className={PLAIN}>
      {pieces.map((piece) => (
        <li key={`${piece.at} ${piece.piece} ${piece.of} ${piece.within ?? ""}`}>
          <Link to={`/components/${piece.of}/pieces`}>{piece.piece}</Link>{" "}
          <span className="quiet" title={`SHA-256 ${piece.digest}`}>
            of {piece.of}: asks for {piece.wanted}, takes {piece.version}
            {piece.within && `, through ${piece.within}`}
          </span>
        </li>
      ))}
    </ul>
  </section>
);

export function Problems({
  problems,
  warnings,
  checked,
  error,
}: {
  problems: Schemas["Problem"][];
  warnings: Schemas["Problem"][];
  checked: boolean;
  error: Error | undefined;
}) {
  if (error)
    return (
      <p className="bad" role="alert">
        It could not be checked: {error.message}
      </p>
    );
  if (!checked) return <p className="quiet">Checking…</p>;
  return (
    <div className={PROBLEMS} role="status">
      <h2>
        {problems.length === 0 ? "No problem" : problems.length === 1 ? "1 problem" : `${problems.length} problems`}
      </h2>
      <ul className={PLAIN}>
        {problems.slice(0, 8).map((problem) => (
          <li key={`${problem.line}:${problem.column} ${problem.message}`}>
            <span className="bad">line {problem.line}</span> {problem.path && <code>{problem.path}</code>}{" "}
            {problem.message}
          </li>
        ))}
        {warnings.slice(0, 4).map((problem) => (
          <li key={`w${problem.line} ${problem.message}`}>
            <span className="warn">line {problem.line}, a warning</span> {problem.message}
          </li>
        ))}
      </ul>
    </div>
  );
}

/** Earlier texts of the file, to hold the present one against. */
export function Earlier({ name, onShow }: { name: string; onShow: (text: string | undefined) => void }) {
  const known = useQuery(pipelineHistory(name));
  const [shown, setShown] = useState("");
  const texts = known.data ?? [];
  const at = texts.find((each) => each.commit === shown);
  return (
    <>
      <select
        aria-label="History of the file"
        value={shown}
        onChange={(event) => {
          setShown(event.target.value);
          onShow(texts.find((each) => each.commit === event.target.value)?.text);
        }}
      >
        <option value="">History</option>
        {texts.map((each) => (
          <option key={each.commit} value={each.commit}>
            {each.commit.slice(0, 8)}
            {each.problems > 0 ? `, ${each.problems} problems` : ""}
          </option>
        ))}
      </select>
      {at && (
        <span className="quiet">
          first seen <At time={at.readAt} />
        </span>
      )}
    </>
  );
}
