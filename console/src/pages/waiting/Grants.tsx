import { useQueryClient } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, need, type Schemas } from "../../api/client";
import { Ask } from "../../design/Ask";
import { Glyph } from "../../design/Glyph";
import { WAITS, WAITS_ACT } from "./classes";

/** Secrets that files in force name and do not get. */
export function Grants({ grants }: { grants: Schemas["GrantView"][] }) {
  const client = useQueryClient();
  if (grants.length === 0) return null;
  return (
    <section>
      <h2>Secrets that files in force name</h2>
      <ul className={`sheet ${WAITS}`}>
        {grants.map((each) => (
          <li key={`${each.component} ${each.secret}`}>
            <Glyph shape="warned" tone="warn" />
            <div>
              <b>
                <code>{each.secret}</code> of <Link to={`/components/${each.component}`}>{each.component}</Link>
              </b>
              <span>
                {each.granted ? (
                  <>
                    It may name it, but no value is set:{" "}
                    <code>
                      paseo secret set {each.secret} --component {each.component}
                    </code>
                  </>
                ) : (
                  "Its file names it, but it was not given it: its next run is refused."
                )}
              </span>
            </div>
            {!each.granted && (
              <span className={WAITS_ACT}>
                <Ask
                  label="Grant"
                  title={`Let ${each.component} name ${each.secret}`}
                  reason=""
                  act="Grant it"
                  what={
                    <p>
                      Runs of trusted branches of {each.component}, and its recipes, get the value of{" "}
                      <code>{each.secret}</code>.
                    </p>
                  }
                  onAct={async () => {
                    await need(api.PUT("/api/v1/components/{component}/grants/{secret}", { params: { path: each } }));
                    await client.invalidateQueries();
                  }}
                />
              </span>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
