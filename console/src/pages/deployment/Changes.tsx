import { ArrowRight } from "lucide-react";
import type { Schemas } from "../../api/client";
import { bytes, Digest } from "../../design/parts";
import { At } from "../../design/time";

type Comparison = Schemas["ComparisonView"];

/** What differs from what is live there. */
export function Changes({ comparison, version, environment, begun }: { comparison: Comparison; version: string; environment: string; begun: boolean }) {
  const { commits } = comparison;
  return (
    <>
      <div className="section-head">
        <h2>{begun ? "What changed" : "What would change"}</h2>
        <span className="quiet">{comparison.live ? <>against <b className="v">{comparison.live}</b>, {begun ? "live before" : "live"} in {environment}</> : `nothing ${begun ? "was" : "is"} live in ${environment}`}</span>
      </div>
      {comparison.lost.length > 0 && (
        <div className="lost">
          <p><b>{comparison.lost.length} {comparison.lost.length === 1 ? "commit is" : "commits are"} live there that {version} lacks</b>: a fix may be lost.</p>
          <ul>{comparison.lost.slice(0, 8).map((commit) => <li key={commit.id}><code>{commit.id.slice(0, 7)}</code> {commit.summary} <span className="quiet">{commit.author}</span></li>)}</ul>
        </div>
      )}
      <div className="changes">
        <section>
          <h3>{commits.length} {commits.length === 1 ? "commit" : "commits"}</h3>
          <table className="commits">
            <tbody>
              {commits.map((commit) => (
                <tr key={commit.id}>
                  <td><code>{commit.id.slice(0, 7)}</code></td><td className="clip" title={commit.summary}>{commit.summary}</td>
                  <td className="quiet">{commit.author}</td><td className="number quiet"><At time={commit.at} /></td>
                </tr>
              ))}
            </tbody>
          </table>
          {commits.length === 0 && <p className="quiet">None: {version} and what is live have the same commit.</p>}
        </section>
        <div>
          <Artifacts artifacts={comparison.artifacts} />
          <Variables variables={comparison.variables} />
        </div>
      </div>
    </>
  );
}

const Artifacts = ({ artifacts }: { artifacts: Schemas["ArtifactChange"][] }) => (
  <section>
    <h3>Artifacts</h3>
    <table>
      <tbody>
        {artifacts.map((each) => (
          <tr key={each.name}>
            <td><b>{each.name}</b></td>
            <td>{each.liveDigest ? <code className="quiet">{each.liveDigest.slice(0, 8)}</code> : <span className="quiet">none</span>}
              {each.digest && each.digest !== each.liveDigest && <><ArrowRight size={13} className="to" aria-label="to" /><Digest value={each.digest} /></>}
              {each.digest === each.liveDigest && <span className="quiet"> unchanged</span>}</td>
            <td className="number">{each.size !== undefined && bytes(each.size)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  </section>
);

const Variables = ({ variables }: { variables: Schemas["VariableChange"][] }) => (
  <section>
    <h3>Variables</h3>
    <table>
      <tbody>
        {variables.map((each) => (
          <tr key={each.name}>
            <td><code>{each.name}</code></td>
            <td>{each.live === each.proposed ? <span className="quiet">{each.live}, unchanged</span>
              : <>{each.live ?? "not set"}<ArrowRight size={13} className="to" aria-label="to" /><b>{each.proposed ?? "not set"}</b></>}</td>
          </tr>
        ))}
      </tbody>
    </table>
    {variables.length === 0 && <p className="quiet">None are set here.</p>}
  </section>
);
