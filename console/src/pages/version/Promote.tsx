import { MapPin } from "lucide-react";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { useMay } from "../../api/may";
import { usePromotion } from "../../api/promote";
import { AskFor } from "../../design/AskFor";
import { deploymentState } from "../../design/states";

type View = Schemas["VersionView"];

/** Where a version of this walk can go: the next gate first, and what is on its way already. */
export function Promote({ view }: { view: View }) {
  const promote = usePromotion();
  const may = useMay();
  const open = (environment: string) =>
    view.deployments.findLast(
      (each) =>
        each.environment === environment &&
        each.status !== "undoing" &&
        ["ahead", "moving"].includes(deploymentState(each.status).phase),
    );
  const places = view.walk.filter((stop) => stop.live !== view.number && !open(stop.environment));
  const next = places.find((stop) => stop.openedAt === undefined && stop.noPlace === undefined);
  const unplaced = view.walk.flatMap((stop) => stop.noPlace ?? []);
  if (view.blocked || view.walk.length === 0) return null;
  return (
    <section className="flex flex-wrap gap-x-3 gap-y-2 mb-5 print:hidden" aria-label="Request it">
      {places
        .filter((stop) => stop.noPlace === undefined)
        .filter((stop) => may("PROMOTE", { component: view.component, environment: stop.environment }))
        .map((stop) => (
          <button
            key={stop.environment}
            type="button"
            className={`btn ${stop === next ? "primary" : ""}`}
            onClick={() => promote(view.component, view.number, stop.environment)}
          >
            {stop.gated ? `Ask for ${stop.environment}` : `Deploy to ${stop.environment}`}
          </button>
        ))}
      {view.walk
        .map((stop) => open(stop.environment))
        .filter((each) => each !== undefined)
        .map((each) => (
          <Link key={each.id} className="btn quiet-btn" to={`/deployments/${each.id}`}>
            On its way into {each.environment}: {each.status}
          </Link>
        ))}
      {next && !may("PROMOTE", { component: view.component, environment: next.environment }) && (
        <AskFor
          act="promote"
          component={view.component}
          environment={next.environment}
          version={view.number}
          words={`promote it into ${next.environment}`}
        />
      )}
      {unplaced.length > 0 && (
        <p className="quiet basis-full">
          It cannot go everywhere on its walk: {unplaced.join("; ")}.{" "}
          <Link className="inline-flex items-baseline gap-1" to={`/components/${view.component}/address`}>
            <MapPin size={14} className="self-center" />
            Where it runs
          </Link>
        </p>
      )}
    </section>
  );
}
