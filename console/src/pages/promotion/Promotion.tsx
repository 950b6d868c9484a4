import { useQuery, useQueryClient } from "@tanstack/react-query";
import { X } from "lucide-react";
import { Dialog } from "radix-ui";
import { useState } from "react";
import { useNavigate, useSearchParams } from "react-router";
import { api, need, type Schemas } from "../../api/client";
import { useMay } from "../../api/may";
import { version as versionQuery, versionComparison } from "../../api/queries";
import { Criteria } from "../../design/Criteria";
import { restOf, useTrying } from "../../design/form";
import { Glyph } from "../../design/Glyph";
import { Loading } from "../../design/parts";
import { WalkRow } from "../../design/Walk";
import { words } from "../deployment/Plan";
import { stopsOf } from "../version/stops";
import { actOf, followsOf, linesOf, promotionOf } from "./summary";
import { DECIDE_BUTTONS, MAY_NOT, OVERLAY } from "../../design/classes";

type Asked = { component: string; version: string; environment: string };

const DRAWER =
  "fixed inset-y-0 right-0 z-50 w-[560px] max-w-full overflow-y-auto border-l border-line-strong bg-surface " +
  "p-6 shadow-[-8px_0_32px_rgb(0_0_0/.18)] max-[600px]:p-4";

/** A drawer over the page one came from: what would be done by a promotion, and the button that asks for it. */
export default function Promotion() {
  const [params, setParams] = useSearchParams();
  const asked = promotionOf(params.get("promote"));
  const close = () =>
    setParams((before) => {
      before.delete("promote");
      return before;
    });
  return (
    <Dialog.Root open={asked !== undefined} onOpenChange={(open) => !open && close()}>
      <Dialog.Portal>
        <Dialog.Overlay className={OVERLAY} />
        <Dialog.Content className={DRAWER} aria-describedby={undefined}>
          {asked && <Drawer key={params.get("promote")} asked={asked} />}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

const Part = ({ title, children }: { title: string; children: React.ReactNode }) => (
  <section className="mt-5">
    <h3 className="m-0 mb-1 text-[13px] font-semibold text-ink-2">{title}</h3>
    {children}
  </section>
);

function Drawer({ asked }: { asked: Asked }) {
  const { component, version, environment } = asked;
  const known = useQuery(versionQuery(component, version));
  const view = known.data;
  return (
    <>
      <div className="flex items-start gap-4">
        <Dialog.Title className="m-0 grow text-[20px] leading-[26px]">
          {component} <span className="v">{version}</span> into {environment}
        </Dialog.Title>
        <Dialog.Close className="icon" aria-label="Close">
          <X size={17} />
        </Dialog.Close>
      </div>
      {known.isError && (
        <p className="bad" role="alert">
          {known.error.message}
        </p>
      )}
      {known.isPending && <Loading height={300} />}
      {view && (
        <>
          <p className="mt-2 mb-0">
            <WalkRow stops={stopsOf(view)} sentence={`The walk of ${component} ${version}`} />
          </p>
          <Planned asked={asked} view={view} />
        </>
      )}
    </>
  );
}

function Planned({ asked, view }: { asked: Asked; view: Schemas["VersionView"] }) {
  const { component, version, environment } = asked;
  const live = view.walk.find((stop) => stop.environment === environment)?.live;
  const plan = useQuery({
    queryKey: ["plan", component, environment, version],
    staleTime: 0,
    queryFn: () =>
      need(
        api.GET("/api/v1/places/{component}/{environment}/plan", {
          params: { path: { component, environment }, query: { version } },
        }),
      ),
  });
  if (plan.isPending) return <Loading height={300} />;
  if (plan.isError)
    return (
      <p className="bad" role="alert">
        {plan.error.message}
      </p>
    );
  const { cautions, reason, gate, onward } = plan.data;
  return (
    <>
      <Part title="What would change">
        {live === version ? (
          <p className="m-0">
            {version} is live in {environment}: it is deployed again.
          </p>
        ) : live ? (
          <Difference component={component} live={live} version={version} />
        ) : (
          <p className="m-0">Nothing is live in {environment} yet.</p>
        )}
      </Part>
      {cautions.map((caution) => (
        <p key={caution} className="warn mb-0 flex items-start gap-2" role="alert">
          <Glyph shape="warned" tone="warn" />
          <span>{caution}.</span>
        </p>
      ))}
      {reason || view.blocked ? (
        <p className="bad" role="alert">
          It cannot be deployed there: {reason ?? `it is blocked, ${view.blocked}`}
        </p>
      ) : (
        <>
          <Part title="What would be done">
            <ol className="m-0 pl-5.5 text-[13px] leading-[18px]">
              {plan.data.plan
                .filter((part) => part.what !== "settled")
                .map((part, at) => (
                  <li key={at}>{words(part)}</li>
                ))}
            </ol>
          </Part>
          <Part title={`What the gate of ${environment} says now`}>
            {gate.length === 0 ? (
              <p className="m-0">Nothing stands before it.</p>
            ) : (
              <Criteria criteria={gate} decisions={[]} mine={false} />
            )}
          </Part>
          <Request asked={asked} gate={gate} onward={onward} past={cautions.length > 0} />
        </>
      )}
    </>
  );
}

function Difference({ component, live, version }: { component: string; live: string; version: string }) {
  const compared = useQuery(versionComparison(component, live, version));
  if (compared.isLoadingError) return <p className="bad m-0">{compared.error.message}</p>;
  if (compared.isPending) return <p className="quiet m-0">Comparing with {live}…</p>;
  return (
    <>
      <p className="m-0 text-[13px] text-ink-2">
        against <b className="v">{live}</b>, which is live there
      </p>
      {linesOf(compared.data).map((line) => (
        <details key={line.sentence} className="border-t border-line py-1">
          <summary className={`cursor-pointer ${line.warn ? "warn" : ""}`}>{line.sentence}</summary>
          <ul className="m-0 list-none p-0 pb-1 pl-4 text-[13px] text-ink-2">
            {line.details.slice(0, 40).map((each) => (
              <li key={each} className="[overflow-wrap:anywhere]">
                {each}
              </li>
            ))}
            {line.details.length > 40 && <li>and {line.details.length - 40} more</li>}
          </ul>
        </details>
      ))}
    </>
  );
}

interface RequestProps {
  asked: Asked;
  gate: Schemas["CriterionView"][];
  onward: string[];
  /** Whether there is something that it would go past. */
  past: boolean;
}

function Request({ asked, gate, onward, past }: RequestProps) {
  const { component, version, environment } = asked;
  const [comment, setComment] = useState("");
  const [reason, setReason] = useState<string>();
  const { trying, busy, refused } = useTrying();
  const client = useQueryClient();
  const navigate = useNavigate();
  const may = useMay();
  if (!may("PROMOTE", asked))
    return <p className={MAY_NOT}>You may not request deployments: whoever may promote {component} asks for it.</p>;
  const request = (emergency?: string) =>
    trying(async () => {
      if (emergency?.trim() === "") throw new Error("Say why it cannot wait: somebody else reviews it.");
      const made = await need(
        api.POST("/api/v1/deployments", {
          body: { component, version, environment, comment: comment.trim() || undefined, emergency },
        }),
      );
      await client.invalidateQueries();
      await navigate(`/deployments/${made.id}`);
    });
  const shut = past || gate.some((each) => each.state !== "met");
  return (
    <form
      className="mt-5 grid gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        void request(reason);
      }}
    >
      <p className="m-0">{followsOf(gate, environment, onward)}</p>
      <label className="grid gap-1">
        <span>
          <b>Comment</b> <span className="quiet">kept with the request and in the audit trail</span>
        </span>
        <textarea
          className="input"
          rows={2}
          maxLength={2000}
          value={comment}
          onChange={(event) => setComment(event.target.value)}
        />
      </label>
      {reason !== undefined && (
        <label className="grid gap-1">
          <span>
            <b>Why it cannot wait</b> <span className="quiet">somebody else reviews it within three days</span>
          </span>
          <textarea
            className="input"
            rows={2}
            maxLength={1000}
            value={reason}
            onChange={(event) => setReason(event.target.value)}
          />
        </label>
      )}
      <p className="field-error m-0" role="alert">
        {restOf(refused, [])}
      </p>
      <div className={DECIDE_BUTTONS}>
        <button type="submit" className={`btn big ${reason === undefined ? "primary" : "danger"}`} disabled={busy}>
          {reason === undefined ? actOf(gate, environment) : "Deploy in an emergency"}
        </button>
        {may("EMERGENCY", asked) && shut && (
          <button
            type="button"
            className="btn quiet-btn"
            onClick={() => setReason(reason === undefined ? "" : undefined)}
          >
            {reason === undefined ? "It cannot wait…" : "It can wait"}
          </button>
        )}
      </div>
    </form>
  );
}
