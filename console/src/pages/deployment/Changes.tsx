import type { Schemas } from "../../api/client";
import { bytes, Digest } from "../../design/parts";
import { At } from "../../design/time";
import { PartChanges, PieceChanges, RecipeChanges, To } from "./RecipeChanges";
import { Wide } from "../../design/Wide";
import { SECTION_HEAD } from "../../design/classes";

const CHANGES =
  "grid grid-cols-[minmax(0,1fr)_minmax(240px,300px)] gap-8 [&_section]:mb-4.5 [&_h3]:pb-1.25 [&_h3]:border-b " +
  "[&_h3]:border-b-line max-[1080px]:grid-cols-[minmax(0,1fr)]";

const LOST =
  "mb-3.5 px-3 py-2.5 border-l-3 border-l-warn bg-warn-soft text-[13px] leading-5 [&_ul]:list-none [&_ul]:p-0";

type Comparison = Schemas["ComparisonView"];

/** What differs from what is live there. */
export function Changes({
  comparison,
  version,
  environment,
  begun,
}: {
  comparison: Comparison;
  version: string;
  /** Where it would be live; absent: two versions are compared, wherever they are. */
  environment?: string;
  begun?: boolean;
}) {
  const { commits } = comparison;
  const authors = [...new Set(commits.map((commit) => commit.author))];
  return (
    <>
      <div className={SECTION_HEAD}>
        <h2>{environment === undefined ? "What differs" : begun ? "What changed" : "What would change"}</h2>
        <span className="quiet">
          {environment === undefined ? (
            <>
              <b className="v">{version}</b> against <b className="v">{comparison.live}</b>
            </>
          ) : comparison.live ? (
            <>
              against <b className="v">{comparison.live}</b>, {begun ? "live before" : "live"} in {environment}
            </>
          ) : (
            `nothing ${begun ? "was" : "is"} live in ${environment}`
          )}
        </span>
      </div>
      {comparison.lost.length > 0 && (
        <div className={LOST}>
          <p>
            <b>
              {comparison.lost.length} {comparison.lost.length === 1 ? "commit is" : "commits are"}{" "}
              {environment === undefined ? `in ${comparison.live}` : "live there"} that {version} lacks
            </b>
            : a fix may be lost.
          </p>
          <ul>
            {comparison.lost.slice(0, 8).map((commit) => (
              <li key={commit.id}>
                <code>{commit.id.slice(0, 7)}</code> {commit.summary} <span className="quiet">{commit.author}</span>
              </li>
            ))}
          </ul>
        </div>
      )}
      {comparison.live === version ? (
        <Again comparison={comparison} />
      ) : (
        <div className={CHANGES}>
          <section>
            <h3>
              {comparison.commitCount} {comparison.commitCount === 1 ? "commit" : "commits"}
              {authors.length > 0 && <span className="quiet"> by {authors.join(", ")}</span>}
            </h3>
            <Wide label="Commits">
              <table className="[&_td:first-child]:w-16">
                <tbody>
                  {commits.map((commit) => (
                    <tr key={commit.id}>
                      <td>
                        <code>{commit.id.slice(0, 7)}</code>
                      </td>
                      <td className="clip" title={commit.summary}>
                        {commit.summary}
                      </td>
                      <td className="quiet max-w-32 truncate" title={commit.author}>
                        {commit.author}
                      </td>
                      <td className="number quiet">
                        <At time={commit.at} />
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </Wide>
            {commits.length === 0 && (
              <p className="quiet">
                None: {version} and {environment === undefined ? comparison.live : "what is live"} have the same commit.
              </p>
            )}
          </section>
          <div>
            <Artifacts artifacts={comparison.artifacts} />
            <Evidence figures={comparison.evidence} />
            <Variables variables={comparison.variables} />
            <Secrets secrets={comparison.secrets} />
            <PartChanges parts={comparison.parts} count={comparison.partCount} />
            <PieceChanges pieces={comparison.pieces} />
            <RecipeChanges recipe={comparison.recipe} files={comparison.files} live={comparison.live} />
          </div>
        </div>
      )}
    </>
  );
}

/** The same version again: only its variables and secrets can differ. */
function Again({ comparison }: { comparison: Comparison }) {
  const variables = comparison.variables.filter((each) => each.live !== each.proposed);
  return (
    <div className="again">
      <p>
        The same version, {comparison.live}: the same bytes by the same recipe.
        {variables.length + comparison.secrets.length === 0 && " Its variables and secrets are the same too."}
      </p>
      {variables.length > 0 && <Variables variables={variables} />}
      <Secrets secrets={comparison.secrets} />
    </div>
  );
}

/** What does not differ, in one line. */
const Same = ({ names }: { names: string[] }) =>
  names.length > 0 && <p className="quiet small-text">The same: {names.join(", ")}</p>;

const Artifacts = ({ artifacts }: { artifacts: Schemas["ArtifactChange"][] }) => (
  <section>
    <h3>Artifacts</h3>
    <Wide label="Artifacts">
      <table>
        <tbody>
          {artifacts
            .filter((each) => each.digest !== each.liveDigest)
            .map((each) => (
              <tr key={each.name}>
                <td>
                  <b>{each.name}</b>
                </td>
                <td>
                  {each.liveDigest ? (
                    <code className="quiet">{each.liveDigest.slice(0, 8)}</code>
                  ) : (
                    <span className="quiet">none</span>
                  )}
                  <To />
                  {each.digest ? <Digest value={each.digest} /> : <b>none</b>}
                </td>
                <td className="number">{each.size !== undefined && bytes(each.size)}</td>
              </tr>
            ))}
        </tbody>
      </table>
    </Wide>
    <Same names={artifacts.filter((each) => each.digest === each.liveDigest).map((each) => each.name)} />
  </section>
);

const Variables = ({ variables }: { variables: Schemas["VariableChange"][] }) => (
  <section>
    <h3>Variables</h3>
    <Wide label="Variables">
      <table>
        <tbody>
          {variables
            .filter((each) => each.live !== each.proposed)
            .map((each) => (
              <tr key={each.name}>
                <td>
                  <code>{each.name}</code>
                </td>
                <td>
                  {each.live ?? "not set"}
                  <To />
                  <b>{each.proposed ?? "not set"}</b>
                </td>
              </tr>
            ))}
        </tbody>
      </table>
    </Wide>
    <Same names={variables.filter((each) => each.live === each.proposed).map((each) => `${each.name} ${each.live}`)} />
    {variables.length === 0 && <p className="quiet">No variables are set here.</p>}
  </section>
);

const revision = (of: Schemas["SecretValueView"] | undefined) =>
  of ? (
    <>
      value {of.number}, set <At time={of.at} />
      {of.by && ` by ${of.by}`}
    </>
  ) : (
    "none"
  );

/** Which value, who set it and when; never the value. */
const Secrets = ({ secrets }: { secrets: Schemas["SecretChange"][] }) =>
  secrets.length > 0 && (
    <section>
      <h3>Secrets</h3>
      <Wide label="Secrets">
        <table>
          <tbody>
            {secrets.map((each) => (
              <tr key={each.name}>
                <td>
                  <code>{each.name}</code>
                </td>
                <td>
                  {revision(each.live)}
                  <To />
                  <b>{revision(each.proposed)}</b>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
    </section>
  );

/** What is better or worse stands out; what is the same is one line. */
function Evidence({ figures }: { figures: Schemas["FigureView"][] }) {
  const changed = figures.filter((each) => each.live !== each.proposed);
  const same = figures.filter((each) => each.live === each.proposed);
  return (
    <section>
      <h3>Evidence</h3>
      <Wide label="Evidence">
        <table>
          <tbody>
            {changed.map((each) => (
              <tr key={each.name} className={each.better === false ? "[&>td]:text-warn" : ""}>
                <td>{each.name}</td>
                <td>
                  {each.live ?? "not reported"}
                  <To />
                  <b>{each.proposed ?? "not reported"}</b>
                  {each.better !== undefined && (
                    <span className={each.better ? "good" : "warn"}> {each.better ? "better" : "worse"}</span>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
      <Same names={same.map((each) => `${each.name} ${each.live}`)} />
      {figures.length === 0 && <p className="quiet">No reports of tests, coverage, findings or parts.</p>}
    </section>
  );
}
