import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { useMay } from "../../api/may";
import { environmentPeople } from "../../api/queries";
import { usePromotion } from "../../api/promote";
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
  const next = places.find((stop) => stop.openedAt === undefined);
  if (view.blocked || view.walk.length === 0) return null;
  return (
    <section className="promote print:hidden" aria-label="Request it">
      {places
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
        <WhoMay environment={next.environment} />
      )}
    </section>
  );
}

/** Whom one asks who may not promote it. */
function WhoMay({ environment }: { environment: string }) {
  const people = useQuery(environmentPeople(environment)).data ?? [];
  const names = people
    .filter((each) => each.may.some(({ action }) => action === "promote"))
    .map((each) => each.account);
  if (names.length === 0) return null;
  return (
    <p className="quiet small-text">
      You do not promote into {environment}; {names.slice(0, 6).join(", ")}
      {names.length > 6 && ` and ${names.length - 6} more`} may. This page’s address shows them what you see.
    </p>
  );
}
