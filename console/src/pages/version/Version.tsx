import { useQuery, useQueryClient } from "@tanstack/react-query";
import { RESTRAINT, RESTRAINTS, TITLE_ACTION } from "../../design/classes";
import { Download, FileSearch } from "lucide-react";
import { Link, useParams } from "react-router";
import { api, need, type Schemas } from "../../api/client";
import { version as versionQuery } from "../../api/queries";
import { useMay } from "../../api/may";
import { Ask } from "../../design/Ask";
import { Glyph, StateWord } from "../../design/Glyph";
import { Walk } from "../../design/Walk";
import { bytes, Digest, Loading, Trouble } from "../../design/parts";
import { deploymentState } from "../../design/states";
import { At } from "../../design/time";
import { Causes } from "../run/Causes";
import { Added } from "./Added";
import { Parts } from "./Parts";
import { Promote } from "./Promote";
import { stopsOf } from "./stops";
import { Wide } from "../../design/Wide";

const VERSION_COLUMNS =
  "grid grid-cols-[minmax(0,1.5fr)_minmax(240px,1fr)_280px] gap-8 mt-5 [--gbg:var(--ground)] [&_section]:grid " +
  "[&_section]:gap-2.5 [&_section]:content-start [&_section]:min-w-0 max-[1080px]:grid-cols-[minmax(0,1fr)]";

type View = Schemas["VersionView"];

/** A version: its walk, its files, where it came from, and everything that was done to make it live. */
export default function Version() {
  const { component = "", number = "" } = useParams();
  const version = useQuery(versionQuery(component, number));
  if (version.isPending) return <Loading height={520} />;
  if (version.isLoadingError) return <Trouble whole error={version.error} />;
  const view = version.data;
  const liveIn = view.walk.filter((stop) => stop.live === view.number).map((stop) => stop.environment);
  return (
    <>
      <title>{`${view.component} ${view.number} · Paseo`}</title>
      <div className="title-line">
        <h1>
          <span className="text-ink-2 font-medium">{view.component}</span> {view.number}
        </h1>
        <p>
          {liveIn.length > 0 ? <span className="badge good">live in {liveIn.join(", ")}</span> : "live nowhere now"}
        </p>
        <p>
          {view.commit ? (
            <>
              {view.branch} at <code>{view.commit.slice(0, 7)}</code>
              {view.commitSummary && <>, “{view.commitSummary}”</>}
            </>
          ) : (
            <>arrived {view.origin}</>
          )}
          {view.names.length > 0 && <>; also called {view.names.join(", ")}</>}
        </p>
        <div className={TITLE_ACTION}>
          <Link className="btn" to={`/components/${view.component}/compare?to=${encodeURIComponent(view.number)}`}>
            Beside another
          </Link>
          <Block view={view} />
        </div>
      </div>
      {view.blocked && (
        <ul className={RESTRAINTS}>
          <li className={RESTRAINT}>
            <Glyph shape="failed" tone="bad" />
            <span>
              <b>Nobody deploys it any more</b>: {view.blocked}.
            </span>
          </li>
        </ul>
      )}
      <Causes links={view.causes} last={`${view.component} ${view.number}`} />
      <div className="hero">
        <Walk stops={stopsOf(view)} label={`The walk of ${view.component} ${view.number}`} />
      </div>
      <Promote view={view} />
      <div className={VERSION_COLUMNS}>
        <Deployments view={view} />
        <Artifacts view={view} />
        <Added component={view.component} number={view.number} />
        <Parts component={view.component} number={view.number} />
        <Origin view={view} />
      </div>
    </>
  );
}

/** For good, unless an administrator lifts it. */
function Block({ view }: { view: View }) {
  const client = useQueryClient();
  const may = useMay();
  const path = { component: view.component, number: view.number };
  const name = `${view.component} ${view.number}`;
  if (!may(view.blocked ? "LIFT_BLOCK" : "PROMOTE", { component: view.component })) return null;
  return view.blocked ? (
    <Ask
      label="Lift the block"
      title={`Lift the block of ${name}`}
      reason="Why"
      needed
      act="Lift it"
      what={<p>It may be deployed again. Only an administrator does this.</p>}
      onAct={async (reason) => {
        await need(api.DELETE("/api/v1/versions/{component}/{number}/block", { params: { path, query: { reason } } }));
        await client.invalidateQueries();
      }}
    />
  ) : (
    <Ask
      danger
      label="Block"
      title={`Block ${name}`}
      reason="Why"
      needed
      act={`Block ${view.number}`}
      what={
        <p>
          It cannot be deployed anywhere any more, not even by rollback or emergency. Its waiting deployments are
          withdrawn. Where it is live, it stays live until another version replaces it.
        </p>
      }
      onAct={async (reason) => {
        await need(api.PUT("/api/v1/versions/{component}/{number}/block", { params: { path }, body: { reason } }));
        await client.invalidateQueries();
      }}
    />
  );
}

function Deployments({ view }: { view: View }) {
  return (
    <section>
      <h2>Deployments</h2>
      {view.deployments.length === 0 ? (
        <p className="quiet">None yet{view.trusted ? "" : ": its branch is not trusted, so it does not walk"}.</p>
      ) : (
        <Wide label="Deployments of this version">
          <table>
            <thead>
              <tr>
                <th>Number</th>
                <th>Into</th>
                <th>State</th>
                <th>Asked by</th>
                <th>Asked</th>
              </tr>
            </thead>
            <tbody>
              {view.deployments.toReversed().map((each) => (
                <tr key={each.id}>
                  <td>
                    <Link to={`/deployments/${each.id}`}>{each.id}</Link>
                  </td>
                  <td>{each.environment}</td>
                  <td>
                    <StateWord state={deploymentState(each.status)} />
                    {each.reason && <div className="quiet">{each.reason}</div>}
                  </td>
                  <td>{each.requestedBy ?? "the walk"}</td>
                  <td>
                    <At time={each.requestedAt} />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </Wide>
      )}
    </section>
  );
}

const count = (number: number | undefined, word: string) => `${number ?? 0} ${word}${number === 1 ? "" : "s"}`;

const Artifacts = ({ view }: { view: View }) => (
  <section>
    <h2>Artifacts</h2>
    {view.artifacts.length === 0 && <p className="quiet">It has none.</p>}
    <Wide label="Artifacts of this version">
      <table>
        <tbody>
          {view.artifacts.map((each) => (
            <tr key={each.name}>
              <td>
                <b>{each.name}</b>
                <br />
                <span className="quiet">
                  {each.fileName}, {bytes(each.size)}
                </span>
              </td>
              <td className="number">
                <Digest value={each.digest} />
                <Link
                  className="icon small"
                  to={`/origins/${each.digest}`}
                  aria-label={`Where ${each.fileName} came from and went`}
                >
                  <FileSearch size={15} />
                </Link>
                <a
                  className="icon small"
                  href={`/api/v1/versions/${view.component}/${view.number}/artifacts/${each.name}`}
                  aria-label={`Download ${each.fileName}`}
                >
                  <Download size={15} />
                </a>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Wide>
  </section>
);

const Origin = ({ view }: { view: View }) => (
  <section>
    <h2>Origin</h2>
    <dl className="facts">
      {view.commit ? (
        <>
          <dt>commit</dt>
          <dd>
            <code>{view.commit.slice(0, 12)}</code> on {view.branch}
          </dd>
        </>
      ) : (
        <>
          <dt>arrived</dt>
          <dd className="wrap-anywhere">{view.origin}</dd>
        </>
      )}
      {view.commitAuthor && (
        <>
          <dt>author</dt>
          <dd>{view.commitAuthor}</dd>
        </>
      )}
      {view.run && (
        <>
          <dt>run</dt>
          <dd>
            <Link to={`/runs/${view.component}/${view.run}`}>#{view.run}</Link>
          </dd>
        </>
      )}
      <dt>sealed</dt>
      <dd>
        <At time={view.sealedAt} />
      </dd>
      <dt>digest</dt>
      <dd>
        <Digest value={view.digest} />
      </dd>
      <dt>recipe</dt>
      <dd>
        {count(view.recipe.steps, "step")}, {count(view.recipe.checks, "check")} on each host
      </dd>
      <dt>statement</dt>
      <dd>
        <a
          href={`/api/v1/versions/${view.component}/${view.number}/statement`}
          download={`${view.component}-${view.number}.statement.json`}
        >
          signed, how it came about
        </a>
      </dd>
    </dl>
  </section>
);
