import { useQueryClient } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, need, type Schemas } from "../../api/client";
import { Ask } from "../../design/Ask";
import { Glyph } from "../../design/Glyph";
import { At } from "../../design/time";
import { WAITS, WAITS_ACT } from "./classes";

/** What went live past a gate or under loosened rules, and somebody else looks at afterwards. */
export function Reviews({ reviews }: { reviews: Schemas["ReviewView"][] }) {
  const client = useQueryClient();
  if (reviews.length === 0) return null;
  return (
    <section>
      <h2>To review</h2>
      <ul className={`sheet ${WAITS}`}>
        {reviews.map((each) => (
          <li key={each.deployment}>
            <Glyph shape="warned" tone="warn" />
            <div>
              <b>
                <Link to={`/deployments/${each.deployment}`}>
                  {each.component} <span className="v">{each.version}</span> into {each.environment}
                </Link>
              </b>
              <span>
                {each.emergency
                  ? `${each.requestedBy ?? ""} went past the gate: “${each.reason}”`
                  : `It went live within a day of this: ${each.reason}.`}
              </span>
              <span className="quiet">
                review until <At time={each.due} />
              </span>
            </div>
            <span className={WAITS_ACT}>
              <Ask
                label="Review"
                title={`Review deployment ${each.deployment}`}
                reason="What you found"
                needed
                act="Reviewed"
                what={<p>Your words are kept in the audit trail beside the deployment.</p>}
                onAct={async (comment) => {
                  await need(
                    api.POST("/api/v1/deployments/{id}/review", {
                      params: { path: { id: each.deployment } },
                      body: { comment },
                    }),
                  );
                  await client.invalidateQueries();
                }}
              />
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
