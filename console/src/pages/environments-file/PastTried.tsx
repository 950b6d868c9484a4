import { Link } from "react-router";
import { api, need, type Schemas } from "../../api/client";
import { At } from "../../design/time";
import { DAYS, Tried } from "../../design/Tried";
import { PLAIN } from "../../design/classes";

type Past = Schemas["DryRunFoundView"];

const OUTCOMES: Record<Past["outcome"], string> = {
  stopped: "stopped",
  waited: "would wait longer",
  "let-through": "let through",
  unknown: "cannot be told",
  "as-it-was": "as it was",
};

/** What the gates of a text would have done to what went through them lately. */
export const PastTried = ({ text }: { text: string }) => (
  <Tried
    text={text}
    ask={(asked) => need(api.POST("/api/v1/environments/dry-run", { body: { text: asked, days: DAYS } }))}
    show={({ environments }) =>
      environments.length === 0 ? (
        <p className="quiet">No gate of an environment that is there changes.</p>
      ) : (
        environments.map((each) => <OfEnvironment key={each.environment} tried={each} />)
      )
    }
  />
);

function OfEnvironment({ tried }: { tried: Schemas["EnvironmentDryRunView"] }) {
  return (
    <section className="grid gap-2">
      <p>
        In <b>{tried.environment}</b> {sentence(tried)}
      </p>
      {tried.found.length > 0 && (
        <ul
          className={`${PLAIN} grid max-h-96 gap-2 overflow-auto`}
          tabIndex={0}
          aria-label="What would have gone otherwise"
        >
          {tried.found.map((found) => (
            <li key={`${found.gate} ${found.deployment ?? found.passage}`} className="grid gap-0.5">
              <span>
                <span className={found.outcome === "stopped" ? "bad" : "warn"}>{OUTCOMES[found.outcome]}</span>{" "}
                <Link
                  to={
                    found.deployment
                      ? `/deployments/${found.deployment}`
                      : `/versions/${found.component}/${encodeURIComponent(found.version)}`
                  }
                >
                  {found.component} {found.version}
                </Link>{" "}
                <span className="quiet">
                  {found.gate === "to-go-on" && "onward, "}
                  {found.gate === "rollback" && "going back, "}
                  <At time={found.at} />
                </span>
              </span>
              <span className="quiet">{found.sentences.join(" ")}</span>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

/** How many would have gone otherwise, of how many. */
export function sentence(tried: Schemas["EnvironmentDryRunView"]): string {
  const count = (outcome: Past["outcome"]) => tried.found.filter((found) => found.outcome === outcome).length;
  const unknown = count("unknown");
  return [
    `these rules would have stopped ${count("stopped")} of ${tried.went} that went through the gates that change` +
      `${tried.all ? "" : " (the newest of each gate)"}, and kept ${count("waited")} waiting longer.`,
    tried.ended > 0 ? `Of ${tried.ended} that ended there, they would have let ${count("let-through")} through.` : "",
    tried.emergencies > 0 ? `${tried.emergencies} went as emergencies, past any gate.` : "",
    unknown > 0 ? `Of ${unknown} it cannot be told.` : "",
  ]
    .filter(Boolean)
    .join(" ");
}
