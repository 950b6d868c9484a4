import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { bytes, Digest } from "../../design/parts";
import { At } from "../../design/time";
import { Reports } from "./Reports";
import { newest, type Stage } from "./stages";
import { PLAIN, RUN_SIDE } from "../../design/classes";
import { Wide } from "../../design/Wide";

const FILES = "[&_td]:align-top [&_.number]:whitespace-nowrap [&_.number_.quiet]:block";

type View = Schemas["RunView"];

/** Beside the log: reports, files and where they came from, the run's origin. */
export function Side({ view, stage }: { view: View; stage: Stage | undefined }) {
  const { run, outputs, left, causes, answers } = view;
  const takes = newest(view.stages).flatMap((each) => each.takes.map((take) => ({ ...take, stage: each.name })));
  const given = Object.entries(answers);
  return (
    <aside className={RUN_SIDE}>
      <Reports component={run.component} number={run.number} />
      <h2>Files</h2>
      {outputs.length + left.length + takes.length === 0 && (
        <p className="quiet">
          {run.endedAt ? "No file was kept, left or taken." : "No file yet. Stages keep them when they pass."}
        </p>
      )}
      <Wide label="Files">
        <table className={FILES}>
          <tbody>
            {outputs.map((output) => (
              <tr key={output.name}>
                <td>
                  <b>{output.name}</b> <span className="quiet">kept, {output.fileName}</span>
                </td>
                <td className="number">
                  <Digest value={output.digest} />
                  <span className="quiet">{bytes(output.size)}</span>
                </td>
              </tr>
            ))}
            {left.map((each) => (
              <tr key={each.stage}>
                <td>
                  <b>{each.stage}</b>{" "}
                  <span className="quiet" title={each.paths.join("\n")}>
                    left {each.paths.length} {each.paths.length === 1 ? "file" : "files"}
                  </span>
                </td>
                <td className="number">
                  <Digest value={each.digest} />
                  <span className="quiet">{bytes(each.size)}</span>
                </td>
              </tr>
            ))}
            {takes.map((take) => (
              <tr key={`${take.stage} ${take.component} ${take.artifact}`}>
                <td>
                  <b>{take.artifact}</b>{" "}
                  <span className="quiet">
                    of{" "}
                    <Link to={`/versions/${take.component}/${take.version}`}>
                      {take.component} {take.version}
                    </Link>
                    , {take.because}; into {take.into}
                  </span>
                </td>
                <td className="number">
                  <Digest value={take.digest} />
                  <span className="quiet">{bytes(take.size)}</span>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
      {stage?.reused && (
        <p className="quiet">
          {stage.name} began with its folders {stage.reused}.
        </p>
      )}
      {view.pieces.length > 0 && (
        <>
          <h2>Pieces</h2>
          <ul className={PLAIN}>
            {view.pieces.map((piece) => (
              <li key={`${piece.at} ${piece.piece} ${piece.of} ${piece.within ?? ""}`}>
                <Link to={`/components/${piece.of}/pieces`}>{piece.piece}</Link>{" "}
                <span className="quiet" title={`SHA-256 ${piece.digest}`}>
                  of {piece.of} {piece.version}
                  {piece.at && `, ${piece.at}`}
                  {piece.within && `, through ${piece.within}`}
                </span>
              </li>
            ))}
          </ul>
        </>
      )}
      <h2>Origin</h2>
      <dl className="facts">
        <dt>commit</dt>
        <dd>
          <code>{run.commit.slice(0, 12)}</code>
        </dd>
        <dt>author</dt>
        <dd>{run.commitAuthor}</dd>
        <dt>version</dt>
        <dd>
          {run.sealed ? (
            <Link to={`/versions/${run.component}/${run.version}`}>{run.version}</Link>
          ) : (
            <span className="v">{run.version}</span>
          )}{" "}
          {run.sealed ? "sealed" : "reserved"}
        </dd>
        {causes[0] && (
          <>
            <dt>started</dt>
            <dd>
              <At time={causes[0].at} />
            </dd>
          </>
        )}
        {given.map(([name, answer]) => (
          <span key={name} className="contents">
            <dt>{name}</dt>
            <dd>{answer || "nothing"}</dd>
          </span>
        ))}
      </dl>
    </aside>
  );
}
