import { useQuery } from "@tanstack/react-query";
import { ExternalLink } from "lucide-react";
import { Link, useParams } from "react-router";
import type { Schemas } from "../../api/client";
import { history, place as placeQuery } from "../../api/queries";
import { Glyph, StateWord } from "../../design/Glyph";
import { Loading, Lozenge, Trouble } from "../../design/parts";
import { deploymentState } from "../../design/states";
import { At, Since } from "../../design/time";
import { In } from "../../design/zone";
import { Actions } from "./Actions";
import { PLACE_COLUMNS, RESTRAINT, RESTRAINTS, TITLE_END, PLACE_HOSTS, PLACE_HISTORY } from "../../design/classes";
import { Wide } from "../../design/Wide";

type View = Schemas["PlaceView"];

/** One component in one environment: what is there, host by host, what restrains it, and what was there. */
export default function Place() {
  const { component = "", environment = "" } = useParams();
  const place = useQuery(placeQuery(component, environment));
  const past = useQuery(history(component, environment));
  if (place.isPending) return <Loading height={520} />;
  if (place.isLoadingError) return <Trouble whole error={place.error} />;
  const view = place.data;
  return (
    <In zone={view.zone}>
      <title>{`${component} in ${environment} · Paseo`}</title>
      <div className="title-line">
        <h1>
          {component} in {environment}
        </h1>
        <p className={TITLE_END}>
          {view.version ? (
            <>
              <b className="v">{view.version}</b> is live{view.side && <> on the {view.side} side</>}, by{" "}
              <Link to={`/deployments/${view.deployment}`}>deployment {view.deployment}</Link>
            </>
          ) : (
            "Nothing is live here yet"
          )}
        </p>
      </div>
      {view.retired && (
        <p className="pt-2 font-[560] warn">
          Retired <At time={view.retired} />: nothing is deployed here any more.
          {view.version && <> What is live keeps running until it is removed.</>} It comes back by:{" "}
          <code>
            paseo bring-back place {component} --in {environment}
          </code>
        </p>
      )}
      <Restraints view={view} />
      <div className={PLACE_COLUMNS}>
        <section className={`sheet place-hosts ${PLACE_HOSTS}`} aria-label="Hosts">
          <header>
            <h2>Hosts</h2>
            {view.url && (
              <a className="btn" href={view.url} target="_blank" rel="noreferrer">
                <ExternalLink size={15} />
                Open {environment}
              </a>
            )}
          </header>
          <Wide label="What each host has">
            <table>
              <thead>
                <tr>
                  <th>Host</th>
                  <th>Has</th>
                  <th>Since</th>
                  <th>How it is</th>
                </tr>
              </thead>
              <tbody>
                {view.hosts.map((host) => (
                  <Here key={host.host} host={host} view={view} />
                ))}
              </tbody>
            </table>
          </Wide>
        </section>
        <Actions view={view} />
      </div>
      <section className={`sheet place-history ${PLACE_HISTORY}`} aria-label="History">
        <header>
          <h2>History</h2>
          {past.data && past.data.length > 0 && (
            <Link
              className={`${TITLE_END} mr-4 text-[13px]`}
              to={`/pace/shifts?${new URLSearchParams({ component, environment })}`}
            >
              Slower or failing lately?
            </Link>
          )}
          <Link to={`/deployments?component=${component}&environment=${environment}`}>All of it</Link>
        </header>
        <Wide label="Deployments of this place">
          <table>
            <thead>
              <tr>
                <th>Deployment</th>
                <th>Version</th>
                <th>Kind</th>
                <th>How it went</th>
                <th>Requested</th>
                <th>By</th>
                <th>Live since</th>
              </tr>
            </thead>
            <tbody>
              {past.data?.map((each) => (
                <tr key={each.id}>
                  <td>
                    <Link to={`/deployments/${each.id}`}>{each.id}</Link>
                  </td>
                  <td>
                    <Link className="v" to={`/versions/${component}/${each.version}`}>
                      {each.version}
                    </Link>
                  </td>
                  <td>
                    {each.kind}
                    {each.emergency && <b className="warn">, emergency</b>}
                  </td>
                  <td>
                    <StateWord state={deploymentState(each.status)} />{" "}
                    {each.reason && (
                      <span className="quiet" title={each.reason}>
                        {each.reason.length > 70 ? `${each.reason.slice(0, 70)}…` : each.reason}
                      </span>
                    )}
                  </td>
                  <td>
                    <At time={each.requestedAt} />
                  </td>
                  <td>{each.requestedBy ?? "the walk"}</td>
                  <td>{each.liveAt && <At time={each.liveAt} />}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </Wide>
        {past.data?.length === 0 && (
          <p className="quiet pad">
            Nothing was deployed here yet. To write down what is live already:{" "}
            <code>
              paseo record {component} VERSION --in {environment} --reason …
            </code>
          </p>
        )}
      </section>
    </In>
  );
}

function Restraints({ view }: { view: View }) {
  if (!view.hold && !view.closed && !view.closedPeriod) return null;
  return (
    <ul className={RESTRAINTS}>
      {view.hold && (
        <li className={RESTRAINT}>
          <Glyph shape="hold" tone="warn" />
          <span>
            <b>Held</b> by {view.hold.by} <At time={view.hold.at} />: “{view.hold.reason}”. Nothing goes here by itself;
            a person may deploy.
          </span>
        </li>
      )}
      {view.closed && (
        <li className={RESTRAINT}>
          <Glyph shape="closed" tone="ice" />
          <span>
            <b>{view.environment} is closed</b> by {view.closed.by}
            {view.closed.until && (
              <>
                {" "}
                until <At time={view.closed.until} />
              </>
            )}
            : “{view.closed.reason}”. Only a rollback passes.
          </span>
        </li>
      )}
      {view.closedPeriod && (
        <li className={RESTRAINT}>
          <Glyph shape="closed" tone="ice" />
          <span>
            <b>{view.environment} is closed</b> by its calendar until <At time={view.closedPeriod.until} />: “
            {view.closedPeriod.summary}”. Only a rollback passes.
          </span>
        </li>
      )}
    </ul>
  );
}

function Here({ host, view }: { host: Schemas["HereView"]; view: View }) {
  const right = host.version !== undefined && host.version === view.version;
  const idle = view.side !== undefined && host.side !== view.side;
  return (
    <tr>
      <td>
        <b>{host.host}</b>
        {host.side && <span className="quiet"> {host.side}</span>}
        {host.url && (
          <>
            {" "}
            <a href={host.url} target="_blank" rel="noreferrer" aria-label={`Open ${host.host}`}>
              <ExternalLink size={13} />
            </a>
          </>
        )}
        {host.reachedBy && <p className="quiet small-text">reached by {host.reachedBy}</p>}
      </td>
      <td>
        {host.version ? (
          <Lozenge
            glyph={<Glyph shape={right ? "live" : "replaced"} tone={right ? "good" : "rest2"} />}
            to={`/versions/${view.component}/${host.version}`}
          >
            {host.version}
          </Lozenge>
        ) : host.unknownSince ? (
          <span className="warn">
            <Glyph shape="warned" tone="warn" /> unknown <At time={host.unknownSince} />
          </span>
        ) : (
          <span className="quiet">nothing</span>
        )}
      </td>
      <td>{host.since && <Since time={host.since} />}</td>
      <td className="how">
        {host.maintenance && (
          <p>
            <Glyph shape="hold" tone="rest" /> in maintenance: {host.maintenance}
          </p>
        )}
        {host.unknownSince && (
          <p className="warn">
            A deployment broke off there. Its agent says what is there once it has looked; a repair puts it right.
          </p>
        )}
        {host.drift && (
          <p className="warn">
            <Glyph shape="warned" tone="warn" /> drifted
            {host.driftedSince && (
              <>
                {" "}
                <At time={host.driftedSince} />
              </>
            )}
            : <code className="wrap-anywhere">{host.drift}</code>
          </p>
        )}
        {host.unhealthySince && (
          <p className="bad">
            <Glyph shape="failed" tone="bad" /> unhealthy <At time={host.unhealthySince} />: {host.failing}
          </p>
        )}
        {!host.unhealthySince && host.failing && <p className="warn">failed its checks just now: {host.failing}</p>}
        {host.olderSettings.length > 0 && (
          <p className="warn">
            <Glyph shape="warned" tone="warn" /> deployed before{" "}
            {host.olderSettings.map((name, at) => (
              <span key={name}>
                {at > 0 && ", "}
                <code>{name}</code>
              </span>
            ))}{" "}
            changed; a redeploy brings what is set now
          </p>
        )}
        {!host.maintenance &&
          !host.drift &&
          !host.failing &&
          !host.unknownSince &&
          (host.checkedAt ? (
            <p className="quiet">
              answers, {right || idle ? "with its own files" : "with another version"}, <At time={host.checkedAt} />
            </p>
          ) : (
            <p className="quiet">{idle ? "without traffic" : "not looked at yet"}</p>
          ))}
      </td>
    </tr>
  );
}
