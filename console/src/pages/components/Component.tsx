import { useQuery } from "@tanstack/react-query";
import { ExternalLink, FilePen, MapPin, Puzzle } from "lucide-react";
import { Link, useParams } from "react-router";
import { useMay } from "../../api/may";
import { type Schemas } from "../../api/client";
import { versions } from "../../api/queries";
import { badge, component as componentQuery, componentRuns, pieces, source } from "../../api/components";
import { Follow } from "../../design/Follow";
import { Loading, Lozenge, Trouble } from "../../design/parts";
import { At } from "../../design/time";
import { Events } from "./Events";
import { Runs } from "./Runs";
import { Stores } from "./Stores";
import { PLAIN, RUN_COLUMNS, RUN_SIDE, COMPONENT_PART, TITLE_ACTION } from "../../design/classes";
import { Start } from "./Start";

const LABELS =
  "flex flex-wrap gap-1.5 [&_a]:px-2 [&_a]:py-0.5 [&_a]:border [&_a]:border-line-strong " +
  "[&_a]:rounded-[var(--r-1)] [&_a]:text-[12px] [&_a]:no-underline";

type View = Schemas["ComponentView"];

/** One component: its runs, branches, pipeline file, links. */
export default function Component() {
  const { name = "" } = useParams();
  const about = useQuery(componentQuery(name));
  const runs = useQuery(componentRuns(name, 30));
  const shared = useQuery(pieces(name));
  if (about.isPending) return <Loading height={480} />;
  if (about.isLoadingError) return <Trouble whole error={about.error} />;
  const view = about.data;
  return (
    <>
      <title>{`${name} · Paseo`}</title>
      <div className="title-line">
        <h1>{name}</h1>
        <p>{view.summary}</p>
        <div className={TITLE_ACTION}>
          <Follow what="component" name={view.name} />
          <Link className="btn" to={`/components/${name}/address`}>
            <MapPin size={16} />
            Where it runs
          </Link>
          {shared.data && shared.data.pieces.length > 0 && (
            <Link className="btn" to={`/components/${name}/pieces`}>
              <Puzzle size={16} />
              Pieces
            </Link>
          )}
          <Link className="btn" to={`/components/${name}/pipeline`}>
            <FilePen size={16} />
            Pipeline file
          </Link>
        </div>
      </div>
      {view.retired && (
        <p className="pt-2 font-[560] warn">
          Retired <At time={view.retired} />: nothing starts or is deployed of it any more; its history stays. It comes
          back by: <Link to={`/settings/components/${name}`}>its settings</Link>
        </p>
      )}
      {view.formerNames.length > 0 && (
        <p className="quiet">
          Formerly {view.formerNames.join(", ")}; it is still reached by{" "}
          {view.formerNames.length === 1 ? "that name" : "those names"}.
        </p>
      )}
      {view.problems.length > 0 && (
        <p className="pt-2 font-[560] bad">
          {view.file} of {view.mainBranch}, line {view.problems[0]?.line}: {view.problems[0]?.message}
          {view.problems.length > 1 && ` (and ${view.problems.length - 1} more)`}
        </p>
      )}
      {view.kept.nearly && (
        <p className="pt-2 font-[560] warn">
          {view.kept.nearly}. An operator allows more in <code>paseo.kept-per-component</code>.
        </p>
      )}
      <div className={RUN_COLUMNS}>
        <div className="min-w-0">
          {(view.repository || (runs.data && runs.data.length > 0)) && (
            <section className={`${COMPONENT_PART} sheet`}>
              {runs.data && runs.data.length > 0 && <Runs name={name} runs={runs.data} />}
              {runs.data?.length === 0 && view.repository && (
                <p className="quiet">
                  No run yet. Push to a branch that the pipeline file names, or: paseo start {name}
                </p>
              )}
            </section>
          )}
          {!view.repository && <Versions name={name} />}
          <Stores name={name} />
          <Events name={name} />
        </div>
        <Side view={view} />
      </div>
    </>
  );
}

/** What arrived, the newest first. */
function Versions({ name }: { name: string }) {
  const arrived = useQuery(versions(name));
  return (
    <section className={`${COMPONENT_PART} sheet`}>
      <header>
        <h2>Versions</h2>
        <p className="quiet">Built elsewhere; they arrive by upload or from an observed store.</p>
      </header>
      {arrived.data?.length === 0 && <p className="quiet">None yet. Publish one: paseo publish {name} VERSION FILE</p>}
      <p className="flex flex-wrap gap-2">
        {arrived.data?.map((number) => (
          <Lozenge key={number} to={`/versions/${name}/${number}`}>
            {number}
          </Lozenge>
        ))}
      </p>
    </section>
  );
}

function Side({ view }: { view: View }) {
  const may = useMay();
  const branches = Object.entries(view.heads);
  const image = useQuery({ ...badge(view.name), enabled: view.repository !== undefined });
  const reached = useQuery(source(view.name));
  return (
    <aside className={RUN_SIDE}>
      {view.repository && may("START_RUN", { component: view.name }) && <Start view={view} />}
      <h2>{view.repository ? "Branches" : "Pipeline file"}</h2>
      {branches.length === 0 && (
        <p className="quiet">{view.repository ? "The repository has no branch yet." : "None is kept here yet."}</p>
      )}
      {reached.data?.error && (
        <p className="bad" role="alert">
          The repository does not answer: {reached.data.error}
        </p>
      )}
      <ul className={PLAIN}>
        {branches.slice(0, 20).map(([branch, commit]) => (
          <li key={branch}>
            <Link to={`/components/${view.name}/pipeline?branch=${encodeURIComponent(branch)}`}>{branch}</Link>{" "}
            <code>{view.repository ? commit.slice(0, 8) : commit}</code>
          </li>
        ))}
      </ul>
      {view.repository && (
        <p className="quiet">
          Trusted: {view.trusted.join(", ") || "none"}. Allowed: {view.allowed.join(", ") || "none more"}.
        </p>
      )}
      {view.sources.length > 0 && (
        <p className="quiet">
          May take from{" "}
          {view.sources.map((source) => `${source.name}${source.allBranches ? "" : " (trusted branches)"}`).join(", ")}.
        </p>
      )}
      <h2>Labels</h2>
      {Object.keys(view.labels).length === 0 && (
        <p className="quiet">
          None yet: they are given in <Settings of={view.name} />, such as team=light.
        </p>
      )}
      <p className={LABELS}>
        {Object.entries(view.labels).map(([label, value]) => (
          <Link
            key={label}
            to={`/?group=${encodeURIComponent(label)}&component=${encodeURIComponent(`${label}=${value}`)}`}
          >
            {label} <b>{value}</b>
          </Link>
        ))}
      </p>
      <h2>Links</h2>
      {view.links.length === 0 && (
        <p className="quiet">
          None yet: they are set in <Settings of={view.name} />, such as a runbook.
        </p>
      )}
      <ul className={PLAIN}>
        {view.repository && (
          <li>
            repository <code title={view.repository}>{view.repository.split("/").at(-1)}</code>
          </li>
        )}
        {view.links.map((link) => (
          <li key={link.title}>
            <a className="inline-flex items-center gap-1.25" href={link.address} rel="noreferrer">
              <ExternalLink size={13} aria-hidden="true" />
              {link.title}
            </a>
          </li>
        ))}
      </ul>
      <h2>Bytes</h2>
      <p className="quiet">{view.kept.words}.</p>
      {image.data && view.repository && (
        <>
          <h2>Badge</h2>
          <img
            src={new URL(image.data.address).pathname + new URL(image.data.address).search}
            alt={`State of ${view.mainBranch}`}
            height={22}
          />
          <p className="quiet">
            <code className="wrap-anywhere">{image.data.address}</code> can be seen by whoever has its address.
          </p>
        </>
      )}
    </aside>
  );
}

const Settings = ({ of }: { of: string }) => <Link to={`/settings/components/${of}`}>its settings</Link>;
