import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { Link, useLocation } from "react-router";
import { api, need, type Schemas } from "../../api/client";
import { asks as asksQuery } from "../../api/queries";
import { usePromotion } from "../../api/promote";
import { Ask } from "../../design/Ask";
import { Glyph } from "../../design/Glyph";
import { At } from "../../design/time";
import { WAITS, WAITS_ACT } from "./classes";

type View = Schemas["AskedView"];

const place = (ask: View) => `/places/${ask.component}/${ask.environment}`;

/** What others, who may not do it themselves, ask of the reader. */
export function Asked({ asks }: { asks: View[] }) {
  const client = useQueryClient();
  const promote = usePromotion();
  const { hash } = useLocation();
  // A notice leads to one of them; they come after the page.
  const there = asks.length > 0;
  useEffect(() => {
    if (there && hash) document.getElementById(hash.slice(1))?.scrollIntoView({ block: "center" });
  }, [there, hash]);
  if (asks.length === 0) return null;
  return (
    <section>
      <h2>Asked of you</h2>
      <ul className={`sheet ${WAITS}`}>
        {asks.map((ask) => (
          <li key={ask.id} id={`ask-${ask.id}`}>
            <Glyph shape="waiting" tone="need" />
            <div>
              <b>
                {ask.by} asks you to{" "}
                <Link to={ask.version ? `/versions/${ask.component}/${ask.version}` : place(ask)}>{ask.sentence}</Link>
              </b>
              <span>“{ask.words}”</span>
              <span className="quiet">
                asked <At time={ask.at} />, of {ask.asked.join(", ")}
              </span>
            </div>
            <span className={WAITS_ACT}>
              <Ask
                label="Decline"
                title={`Decline what ${ask.by} asks`}
                reason="Why not"
                needed
                act="Decline it"
                what={
                  <p>
                    {ask.by} is told your words, and nobody is asked to {ask.sentence} any more.
                  </p>
                }
                onAct={async (answer) => {
                  await need(
                    api.POST("/api/v1/asks/{id}/refusal", { params: { path: { id: ask.id } }, body: { answer } }),
                  );
                  await client.invalidateQueries();
                }}
              />
              {ask.version ? (
                <button
                  type="button"
                  className="btn yes"
                  onClick={() => ask.version && promote(ask.component, ask.version, ask.environment)}
                >
                  Promote {ask.version}
                </button>
              ) : (
                <Link className="btn yes" to={place(ask)}>
                  Look and decide
                </Link>
              )}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What the reader asked of others, as long as it waits, and the newest that ended. */
export function YouAsked() {
  const client = useQueryClient();
  const all = useQuery(asksQuery()).data ?? [];
  const shown = [...all.filter((ask) => !ask.outcome), ...all.filter((ask) => ask.outcome).slice(0, 3)];
  if (shown.length === 0) return null;
  return (
    <section>
      <h2>You asked</h2>
      <ul className={`sheet ${WAITS}`}>
        {shown.map((ask) => (
          <li key={ask.id}>
            <Glyph
              shape={ask.outcome === "done" ? "passed" : ask.outcome ? "overtaken" : "waiting"}
              tone={ask.outcome === "done" ? "good" : "rest"}
            />
            <div>
              <b>
                to <Link to={place(ask)}>{ask.sentence}</Link>
              </b>
              <span>{came(ask)}</span>
              <span className="quiet">
                asked <At time={ask.at} />
                {ask.deployment && (
                  <>
                    , see <Link to={`/deployments/${ask.deployment}`}>deployment {ask.deployment}</Link>
                  </>
                )}
              </span>
            </div>
            {!ask.outcome && (
              <span className={WAITS_ACT}>
                <Ask
                  label="Drop"
                  title={`Ask no more to ${ask.sentence}`}
                  reason=""
                  act="Drop it"
                  what={<p>It leaves the lists of {ask.asked.join(", ")}.</p>}
                  onAct={async () => {
                    await need(api.DELETE("/api/v1/asks/{id}", { params: { path: { id: ask.id } } }));
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

/** What came of it. */
function came(ask: View): string {
  const by = ask.answeredBy ? ` by ${ask.answeredBy}` : "";
  switch (ask.outcome) {
    case "done":
      return `done${by}`;
    case "declined":
      return `declined${by}: “${ask.answer ?? ""}”`;
    case "dropped":
      return "dropped by you";
    case "over":
      return `nothing left to do: ${ask.answer ?? ""}`;
    default:
      return ask.asked.length > 0 ? `waits for one of ${ask.asked.join(", ")}` : "nobody may do it any more";
  }
}
