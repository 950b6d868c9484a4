import { useQuery } from "@tanstack/react-query";
import { ExternalLink } from "lucide-react";
import { Link, useParams } from "react-router";
import type { Schemas } from "../../api/client";
import { deployment as deploymentQuery } from "../../api/queries";
import { Glyph, StateWord } from "../../design/Glyph";
import { Walk } from "../../design/Walk";
import { Follow } from "../../design/Follow";
import { Loading, Trouble } from "../../design/parts";
import { deploymentState } from "../../design/states";
import { At, lengthOf, without } from "../../design/time";
import { In } from "../../design/zone";
import { RecordLinks } from "../../design/RecordLinks";
import { Added } from "../version/Added";
import { Changes } from "./Changes";
import { Decide } from "./Decide";
import { Gate } from "./Gate";
import { Hosts } from "./Hosts";
import { TakeBack } from "./HandOn";
import { heroStops } from "./hero";
import { Plan } from "./Plan";
import { Withdraw } from "./Withdraw";
import { EVIDENCE, TITLE_END, TITLE_ACTION } from "../../design/classes";

const BEYOND =
  "bg-surface border border-line border-l-2 border-l-line-strong [border-radius:0_var(--r-2)_var(--r-2)_0] " +
  "pt-3.5 pr-5 pb-4.5 pl-6.5 grid gap-3 content-start [--gbg:var(--surface)] max-[1080px]:mt-4 " +
  "max-[1080px]:rounded-[8px]";

const DEPLOYMENT_COLUMNS =
  "relative grid grid-cols-[minmax(0,1fr)_420px] gap-0 [&.mine_.beyond]:border-l-need " +
  "max-[1080px]:grid-cols-[minmax(0,1fr)]";
const STATUS_LINE =
  "flex flex-wrap gap-x-2.5 gap-y-1 text-[16px] [&>span:last-child:not(:first-child)]:text-[13px] " +
  "[&>span:last-child:not(:first-child)]:text-ink-2";
const NEWER = "px-3 py-2 border-l-2 border-l-line-strong text-[13px] leading-[18px] text-ink-2";

/** Where everything stands below each other, the decision is one touch away. */
const ON_A_PHONE =
  "btn primary fixed right-4 bottom-10 z-30 hidden shadow-[0_6px_20px_rgb(0_0_0/.3)] max-[720px]:inline-flex " +
  "print:hidden";

export type View = Schemas["DeploymentView"];

/** A deployment: left of the gate the evidence, right of it what will happen and the decision. */
export default function Deployment() {
  const { id = "0" } = useParams();
  const deployment = useQuery(deploymentQuery(Number(id)));
  if (deployment.isPending) return <Loading height={520} />;
  if (deployment.isLoadingError) return <Trouble whole error={deployment.error} />;
  const view = deployment.data;
  const { component, version, environment, status } = view.deployment;
  const mine = status === "waiting" && view.mayNot === undefined;
  const what = `${view.emergency ? "an emergency, a" : "a"} ${view.deployment.kind}`;
  return (
    <In zone={view.zone}>
      <title>{`${component} ${version} into ${environment} · Paseo`}</title>
      <div className="title-line">
        <h1>{title(view)}</h1>
        <p className={TITLE_END}>
          Deployment <b>{view.deployment.id}</b>, {what}. <b>{view.deployment.requestedBy ?? "The walk"}</b> asked{" "}
          <At time={view.deployment.requestedAt} />
          {view.deployment.startedAt && view.deployment.liveAt && (
            <>
              , live {lengthOf(view.deployment.startedAt, new Date(view.deployment.liveAt), view.deployment.away)} after
              it began{without(view.deployment.away)}
            </>
          )}
        </p>
        <div className={TITLE_ACTION}>
          <Follow what="deployment" name={String(view.deployment.id)} />
        </div>
      </div>
      <div className="hero">
        <Walk stops={heroStops(view)} label={`The walk of ${component} ${version}`} />
      </div>
      <div className={`deployment-columns ${DEPLOYMENT_COLUMNS} ${mine ? "mine" : ""}`}>
        <div className={EVIDENCE}>
          <Addresses view={view} />
          <Changes
            comparison={view.comparison}
            version={version}
            environment={environment}
            begun={view.deployment.startedAt !== undefined}
          />
          <Added component={component} number={version} beside />
          <p className="text-[13px] text-ink-2">
            <Link to={`/places/${component}/${environment}`}>
              {component} in {environment}
            </Link>
            ,{" "}
            <Link to={`/versions/${component}/${version}`}>
              {component} {version}
            </Link>
            {view.run && (
              <>
                , built by{" "}
                <Link to={`/runs/${component}/${view.run}`}>
                  {component} #{view.run}
                </Link>
              </>
            )}
            {view.deployment.liveAt && (
              <>
                ,{" "}
                <a
                  href={`/api/v1/deployments/${view.deployment.id}/statement`}
                  download={`deployment-${view.deployment.id}.statement.json`}
                >
                  signed statement
                </a>
              </>
            )}
            , <RecordLinks of={`deployment=${view.deployment.id}`} />
          </p>
        </div>
        <div className={BEYOND}>
          <p className={STATUS_LINE}>
            <StateWord state={deploymentState(status)} tone={mine ? "need" : undefined}>
              {mine ? "waits for you" : deploymentState(status).word}
            </StateWord>
            {view.deployment.reason && <span>{view.deployment.reason}</span>}
          </p>
          {view.newer && (
            <p className={NEWER}>
              {component} <b className="v">{view.newer}</b> is newer and has been live where this came from. Requesting
              it overtakes this one; approvals are not carried over.
            </p>
          )}
          {view.cautions.map((caution) => (
            <p key={caution} className="warn">
              <Glyph shape="warned" tone="warn" /> {caution}.
            </p>
          ))}
          {view.emergency && (
            <p className="warn">
              An emergency: “{view.emergency}”. Somebody else reviews it within three days:{" "}
              <Link to="/waiting">it waits there</Link>.
            </p>
          )}
          <Gate view={view} mine={mine} />
          <TakeBack view={view} />
          <Plan view={view} />
          <Hosts view={view} />
          <Withdraw view={view} />
          {status === "waiting" && <Decide view={view} mine={mine} />}
        </div>
      </div>
      {status === "waiting" && mine && (
        <a href="#decide" className={ON_A_PHONE}>
          Decide
        </a>
      )}
    </In>
  );
}

function title({ deployment: { component, version, environment, status } }: View): string {
  switch (status) {
    case "waiting":
      return `${component} ${version} waits at ${environment}’s gate`;
    case "live":
      return `${component} ${version} is live in ${environment}`;
    case "replaced":
      return `${component} ${version} was live in ${environment}`;
    case "queued":
      return `${component} ${version} is queued for ${environment}`;
    default:
      return `${component} ${version} into ${environment}: ${status}`;
  }
}

const port = (url: string) => new URL(url).host;

const Addresses = ({ view }: { view: View }) => (
  <div className="flex flex-wrap gap-2.5">
    {view.behindUrl && (
      <a className="btn" href={view.behindUrl} target="_blank" rel="noreferrer">
        <ExternalLink size={15} />
        Open {view.route[view.route.indexOf(view.deployment.environment) - 1]} <code>{port(view.behindUrl)}</code>
      </a>
    )}
    {view.url && (
      <a className="btn" href={view.url} target="_blank" rel="noreferrer">
        <ExternalLink size={15} />
        Open {view.deployment.environment} <code>{port(view.url)}</code>
      </a>
    )}
  </div>
);
