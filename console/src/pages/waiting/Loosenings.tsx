import { useQuery, useQueryClient } from "@tanstack/react-query";
import { api, need, type Schemas } from "../../api/client";
import { loosenings as looseningsQuery, me } from "../../api/queries";
import { Ask } from "../../design/Ask";
import { Glyph } from "../../design/Glyph";
import { At } from "../../design/time";
import { IN_SHORT } from "../../design/classes";
import { WAITS, WAITS_ACT } from "./classes";

/** What somebody wants to loosen, and one of those who are asked agrees to; all that it changes is shown before. */
export function Loosenings({ loosenings }: { loosenings: Schemas["LooseningView"][] }) {
  const client = useQueryClient();
  if (loosenings.length === 0) return null;
  const say = async (each: Schemas["LooseningView"], yes: boolean, comment: string) => {
    await need(
      api.POST("/api/v1/loosenings/{id}/words", {
        params: { path: { id: each.id } },
        body: { yes, comment, subject: each.subject },
      }),
    );
    await client.invalidateQueries();
  };
  return (
    <section>
      <h2>To agree to</h2>
      <ul className={`sheet ${WAITS}`}>
        {loosenings.map((each) => (
          <li key={each.id}>
            <Glyph shape="warned" tone="warn" />
            <div>
              <b>
                {each.by} wants to loosen what is asked for {Object.keys(each.asked).join(" and ")}
              </b>
              <Changes loosening={each} />
              <span className="quiet">
                wanted <At time={each.at} />, until <At time={each.until} />; nothing of it counts before somebody else
                agrees
              </span>
            </div>
            <span className={WAITS_ACT}>
              <Ask
                label="Refuse"
                title={`Refuse loosening ${each.id}`}
                reason="Why not"
                needed
                danger
                act="Refuse it"
                what={<Changes loosening={each} />}
                onAct={(comment) => say(each, false, comment)}
              />
              <Ask
                label="Agree"
                title={`Agree to loosening ${each.id}`}
                reason="Your comment"
                act="Agree"
                what={<Changes loosening={each} />}
                onAct={(comment) => say(each, true, comment)}
              />
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Changes({ loosening }: { loosening: Schemas["LooseningView"] }) {
  return (
    <>
      <ul className={IN_SHORT}>
        {loosening.what.map((what) => (
          <li key={what}>{what}</li>
        ))}
      </ul>
      {loosening.text && (
        <details>
          <summary>The whole file that would be loaded</summary>
          <pre className="max-h-80 max-w-full overflow-auto">{loosening.text}</pre>
        </details>
      )}
    </>
  );
}

/** What the reader wants loosened themselves, and who has to agree. */
export function Wanted() {
  const client = useQueryClient();
  const reader = useQuery(me()).data?.name;
  const mine = (useQuery(looseningsQuery()).data ?? []).filter((each) => each.by === reader && each.status === "open");
  if (mine.length === 0) return null;
  const takeBack = async (id: number) => {
    await need(api.POST("/api/v1/loosenings/{id}/withdrawal", { params: { path: { id } } }));
    await client.invalidateQueries();
  };
  return (
    <section>
      <h2>You asked for this loosening</h2>
      <ul className={`sheet ${WAITS}`}>
        {mine.map((each) => (
          <li key={each.id}>
            <Glyph shape="waiting" tone="rest" />
            <div>
              <b>
                Waits for{" "}
                {each.people.length === 0 ? "nobody: none of those who are asked may agree" : each.people.join(" or ")}
              </b>
              <Changes loosening={each} />
              <span className="quiet">
                asked for {Object.keys(each.asked).join(" and ")}, until <At time={each.until} />; nothing of it counts
                before
              </span>
            </div>
            <span className={WAITS_ACT}>
              <Ask
                label="Take back"
                title={`Withdraw loosening ${each.id}`}
                reason=""
                act="Take it back"
                what={<Changes loosening={each} />}
                onAct={() => takeBack(each.id)}
              />
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
