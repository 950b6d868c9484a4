import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, need, type Schemas } from "../../api/client";
import { deployment as deploymentQuery, waiting as waitingQuery } from "../../api/queries";
import { Ask } from "../../design/Ask";
import { Glyph } from "../../design/Glyph";
import { Loading, Trouble } from "../../design/parts";
import { At } from "../../design/time";
import { Asked, YouAsked } from "./Asks";
import { Deputies } from "./Deputies";
import { Grants } from "./Grants";
import { Loosenings, Wanted } from "./Loosenings";
import { Notices } from "./Notices";
import { Reviews } from "./Reviews";
import { IN_SHORT } from "../../design/classes";
import { WAITS, WAITS_ACT } from "./classes";

const WAITING_COLUMNS =
  "grid grid-cols-[minmax(0,1fr)_300px] gap-8 items-start [&_h2]:mx-0 [&_h2]:mt-5 [&_h2]:mb-2 [&>aside_h2]:m-0 " +
  "max-[900px]:grid-cols-[minmax(0,1fr)]";

type Gate = Schemas["Waiting"];

/** What needs the reader, the most urgent first. */
export default function Waiting() {
  const waiting = useQuery(waitingQuery());
  if (waiting.isPending) return <Loading height={480} />;
  if (waiting.isLoadingError) return <Trouble whole error={waiting.error} />;
  const view = waiting.data;
  return (
    <>
      <title>{`${view.count > 0 ? `(${view.count}) ` : ""}Waiting · Paseo`}</title>
      <div className="title-line">
        <h1>Waiting</h1>
        <p>
          {view.count === 0
            ? "Nothing needs you."
            : view.count === 1
              ? "One thing needs you."
              : `${view.count} things need you, the most urgent first.`}
        </p>
      </div>
      <div className={WAITING_COLUMNS}>
        <div>
          {view.count === 0 && (
            <div className="sheet px-5 py-5.5">
              <p>
                You are told here, and by mail, when something waits for you. What waits for others stands on{" "}
                <Link to="/">whereabouts</Link>.
              </p>
            </div>
          )}
          {view.gates.length > 0 && (
            <ul className={`sheet ${WAITS}`} aria-label="Decisions and checklists">
              {view.gates.map((gate) => (
                <Waits key={`${gate.deployment}-${gate.passage}`} gate={gate} />
              ))}
            </ul>
          )}
          {view.gates.length >= 200 && <p className="quiet">and more: decide these first.</p>}
          <Loosenings loosenings={view.loosenings} />
          <Wanted />
          <Asked asks={view.asks} />
          <YouAsked />
          <Reviews reviews={view.reviews} />
          <Grants grants={view.grants} />
          {view.stays.length > 0 && (
            <section>
              <h2>Walks that stay</h2>
              <ul className={`sheet ${WAITS}`}>
                {view.stays.map((stay) => (
                  <li key={`${stay.component} ${stay.version} ${stay.environment}`}>
                    <Glyph shape="warned" tone="warn" />
                    <div>
                      <b>
                        <Link to={`/versions/${stay.component}/${stay.version}`}>
                          {stay.component} <span className="v">{stay.version}</span> before {stay.environment}
                        </Link>
                      </b>
                      <span>{stay.reason}. When that is mended, it goes on by itself.</span>
                    </div>
                  </li>
                ))}
              </ul>
            </section>
          )}
          {view.nobody.length > 0 && (
            <section>
              <h2>Waits for nobody</h2>
              <ul className={`sheet ${WAITS}`}>
                {view.nobody.map((gate) => (
                  <li key={`${gate.deployment}-${gate.passage}`}>
                    <Glyph shape="failed" tone="bad" />
                    <div>
                      <b>
                        <Link to={path(gate)}>
                          {gate.component} <span className="v">{gate.version}</span> {where(gate)}
                        </Link>
                      </b>
                      <span>{gate.sentence}</span>
                    </div>
                  </li>
                ))}
              </ul>
            </section>
          )}
          <Deputies />
        </div>
        <Notices />
      </div>
    </>
  );
}

const path = (gate: Gate) => (gate.deployment ? `/deployments/${gate.deployment}` : `/passages/${gate.passage}`);
const where = (gate: Gate) => (gate.deployment ? `into ${gate.environment}` : `leaves ${gate.environment}`);

function Waits({ gate }: { gate: Gate }) {
  return (
    <li>
      <Glyph shape="waiting" tone="need" />
      <div>
        <b>
          <Link to={path(gate)}>
            {gate.component} <span className="v">{gate.version}</span> {where(gate)}
          </Link>
        </b>
        <span>
          <b>{gate.name}</b> {gate.sentence}
        </span>
        <span className="quiet">
          since <At time={gate.since} />
          {gate.due && (
            <>
              , until <At time={gate.due} />
            </>
          )}
        </span>
      </div>
      <span className={WAITS_ACT}>
        {gate.kind === "decision" && gate.deployment && <Approve id={gate.deployment} gate={gate} />}
        <Link className="btn yes" to={path(gate)}>
          {gate.kind === "checklist" ? "Tick" : "Look and decide"}
        </Link>
      </span>
    </li>
  );
}

/** A simple one is decided here; what would change is shown before. */
function Approve({ id, gate }: { id: number; gate: Gate }) {
  const client = useQueryClient();
  return (
    <Ask
      label="Approve"
      title={`Approve ${gate.component} ${gate.version} ${where(gate)}`}
      reason="Your comment"
      needed
      act={`Approve ${gate.version}`}
      what={<InShort id={id} />}
      onAct={async (comment) => {
        const seen = await client.fetchQuery(deploymentQuery(id));
        await need(
          api.POST("/api/v1/deployments/{id}/decision", {
            params: { path: { id } },
            body: { yes: true, comment, subject: seen.subject },
          }),
        );
        await client.invalidateQueries();
      }}
    />
  );
}

function InShort({ id }: { id: number }) {
  const deployment = useQuery(deploymentQuery(id));
  if (!deployment.data) return <p>Checking what would change…</p>;
  const { comparison } = deployment.data;
  const worse = comparison.evidence.filter((figure) => figure.better === false);
  const variables = comparison.variables.filter((each) => each.live !== each.proposed);
  return (
    <ul className={IN_SHORT}>
      <li>
        <b>{comparison.commitCount}</b> {comparison.commitCount === 1 ? "commit" : "commits"} against{" "}
        {comparison.live ?? "nothing"}
        {comparison.commits.slice(0, 3).map((commit) => (
          <span key={commit.id} className="quiet">
            {" "}
            · {commit.summary} ({commit.author})
          </span>
        ))}
      </li>
      {comparison.lost.length > 0 && (
        <li className="warn">{comparison.lost.length} commits that are live are not in it</li>
      )}
      {worse.length > 0 && (
        <li className="warn">
          {worse.map((figure) => `${figure.name} ${figure.live} to ${figure.proposed}`).join(", ")}
        </li>
      )}
      {variables.length > 0 && (
        <li>
          {variables
            .map((each) => `${each.name} ${each.live ?? "not set"} to ${each.proposed ?? "not set"}`)
            .join(", ")}
        </li>
      )}
      {comparison.pieces.length > 0 && (
        <li>{comparison.pieces.map((each) => `${each.what} to ${each.proposed ?? "none"}`).join(", ")}</li>
      )}
      {(comparison.recipe.length > 0 || comparison.files.length > 0) && <li>the recipe changes: look at the whole</li>}
    </ul>
  );
}
