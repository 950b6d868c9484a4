import { useQueries } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, need, type Schemas } from "../../api/client";

/** The conditions of a gate, as they are written: one, several, each with a name or without. */
export function conditionsOf(facts: unknown): string[] {
  if (typeof facts === "string") return [facts];
  if (Array.isArray(facts)) return facts.flatMap(conditionsOf);
  return typeof facts === "object" && facts !== null ? Object.values(facts).flatMap(conditionsOf) : [];
}

/** For which of the newest promotions into an environment each condition would hold. */
export function FactsTried({ environment, conditions }: { environment: string; conditions: string[] }) {
  const tried = useQueries({
    queries: conditions.map((condition) => ({
      queryKey: ["facts", environment, condition],
      staleTime: 60_000,
      retry: false,
      queryFn: () =>
        need(
          api.POST("/api/v1/environments/{name}/facts", {
            params: { path: { name: environment } },
            body: { condition },
          }),
        ),
    })),
  });
  return (
    <>
      {conditions.map((condition, at) => {
        const view = tried[at]?.data;
        return view && <Tried key={condition} condition={condition} view={view} />;
      })}
    </>
  );
}

function Tried({ condition, view }: { condition: string; view: Schemas["FactsView"] }) {
  const held = view.deployments.filter((each) => each.holds === true).length;
  const not = view.deployments.filter((each) => each.holds === false);
  const untold = view.deployments.length - held - not.length;
  return (
    <p className="m-0 text-[12px] text-ink-2" role="status">
      <code>{condition}</code>{" "}
      {view.reason ? (
        <span className="bad">{view.reason}</span>
      ) : view.deployments.length === 0 ? (
        "no promotion yet over which it could be tried."
      ) : (
        <>
          would hold for {held} of the last {view.deployments.length} promotions
          {untold > 0 && `; for ${untold} something it asks for was not reported`}
          {not.length > 0 && "; not for "}
          {not.slice(0, 6).map((each, at) => (
            <span key={each.deployment}>
              {at > 0 && ", "}
              <Link to={`/deployments/${each.deployment}`}>
                {each.component} {each.version}
              </Link>
            </span>
          ))}
          .
        </>
      )}
    </p>
  );
}
