import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { useMay } from "../../api/may";
import { api, need, type Schemas } from "../../api/client";
import { oneSet, whereabouts } from "../../api/queries";
import { Ask } from "../../design/Ask";
import { StateWord } from "../../design/Glyph";
import { Loading, Trouble } from "../../design/parts";
import { deploymentState } from "../../design/states";
import { At } from "../../design/time";
import { RecordLinks } from "../../design/RecordLinks";
import { IN_SHORT, PLACE_ACTIONS, PLACE_COLUMNS, PLACE_HOSTS, PLACE_HISTORY } from "../../design/classes";
import { Wide } from "../../design/Wide";

/** One set: what is in it, what is live of it where, and its promotions. */
export default function OneSet() {
  const { name = "" } = useParams();
  const set = useQuery(oneSet(name));
  if (set.isPending) return <Loading height={420} />;
  if (set.isLoadingError) return <Trouble whole error={set.error} />;
  const view = set.data;
  return (
    <>
      <title>{`${name} · Paseo`}</title>
      <div className="title-line">
        <h1>
          <Link className="text-ink-2 font-medium" to="/sets">
            Sets
          </Link>{" "}
          {name}
        </h1>
        <p>
          Made <At time={view.at} />
          {view.by && ` by ${view.by}`}. It never changes.
        </p>
      </div>
      <div className={PLACE_COLUMNS}>
        <div>
          <Members view={view} />
          {view.promotions.map((promotion) => (
            <Promotion key={promotion.id} promotion={promotion} />
          ))}
          {view.promotions.length === 0 && <p className="quiet pad">It was not promoted yet.</p>}
        </div>
        <Promote view={view} />
      </div>
    </>
  );
}

/** Each member beside what is live of its component now. */
function Members({ view }: { view: Schemas["SetView"] }) {
  const where = useQuery(whereabouts());
  const environments = where.data?.environments.map((each) => each.name) ?? [];
  return (
    <section className={`sheet place-hosts ${PLACE_HOSTS}`} aria-label="Versions">
      <header>
        <h2>In their order</h2>
      </header>
      <Wide label="Versions in their order">
        <table>
          <thead>
            <tr>
              <th>Component</th>
              <th>Version</th>
              {environments.map((each) => (
                <th key={each}>live in {each}</th>
              ))}
            </tr>
          </thead>
          <tbody>
            {view.members.map((member) => {
              const cells = where.data?.rows.find((row) => row.component === member.component)?.cells ?? [];
              return (
                <tr key={member.component}>
                  <td>
                    <Link to={`/components/${member.component}`}>{member.component}</Link>
                  </td>
                  <td>
                    <Link className="v" to={`/versions/${member.component}/${member.version}`}>
                      {member.version}
                    </Link>
                  </td>
                  {environments.map((each) => {
                    const live = cells.find((cell) => cell.environment === each)?.version;
                    return (
                      <td key={each}>
                        {live === member.version ? (
                          <b className="good">this one</b>
                        ) : live ? (
                          <span className="v">{live}</span>
                        ) : (
                          <span className="quiet">nothing</span>
                        )}
                      </td>
                    );
                  })}
                </tr>
              );
            })}
          </tbody>
        </table>
      </Wide>
    </section>
  );
}

function Promotion({ promotion }: { promotion: Schemas["SetPromotionView"] }) {
  return (
    <section className={`sheet place-history ${PLACE_HISTORY}`} aria-label={`Promotion into ${promotion.environment}`}>
      <header>
        <h2>Into {promotion.environment}</h2>
        <StateWord state={deploymentState(promotion.status)} />
      </header>
      <p className="quiet">
        Requested by {promotion.requestedBy} <At time={promotion.requestedAt} />
        {promotion.comment && <>: “{promotion.comment}”</>}
        {promotion.endedAt && (
          <>
            ; ended <At time={promotion.endedAt} />
          </>
        )}
        . <RecordLinks of={`promotion=${promotion.id}`} />
      </p>
      <Wide label={`Deployments into ${promotion.environment}`}>
        <table>
          <tbody>
            {promotion.parts.map((part, at) => (
              <tr key={part.component}>
                <td>
                  {at + 1}. <b>{part.component}</b>
                </td>
                <td className="v">{part.version}</td>
                <td>
                  {part.deployment ? (
                    <Link to={`/deployments/${part.deployment}`}>deployment {part.deployment}</Link>
                  ) : (
                    <span className="quiet">not requested yet</span>
                  )}
                </td>
                <td>
                  {part.status && <StateWord state={deploymentState(part.status)} />}
                  {part.reason && <p className="quiet">{part.reason}</p>}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
    </section>
  );
}

function Promote({ view }: { view: Schemas["SetView"] }) {
  const where = useQuery(whereabouts());
  const client = useQueryClient();
  const go = useNavigate();
  const may = useMay();
  const environments = (where.data?.environments ?? [])
    .map((each) => each.name)
    .filter((environment) => view.members.every(({ component }) => may("PROMOTE", { component, environment })));
  const [chosen, choose] = useState<string>();
  const environment = chosen ?? environments.at(-1) ?? "";
  if (environments.length === 0) return null;
  return (
    <section className={`sheet ${PLACE_ACTIONS}`} aria-label="Promote">
      <h2>Promote all of it</h2>
      <select aria-label="Environment" value={environment} onChange={(event) => choose(event.target.value)}>
        {environments.map((each) => (
          <option key={each}>{each}</option>
        ))}
      </select>
      <Ask
        label={`Promote into ${environment}`}
        title={`Promote ${view.name} into ${environment}`}
        reason="Comment"
        act="Promote all of it"
        what={
          <>
            <p>They wait at one gate, and people decide once, about all. Then, one after the other:</p>
            <ol className={IN_SHORT}>
              {view.members.map((member) => (
                <li key={member.component}>
                  {member.component} <b className="v">{member.version}</b>
                </li>
              ))}
            </ol>
            <p>If one does not go live, all of it is undone.</p>
          </>
        }
        onAct={async (comment) => {
          const promotion = await need(
            api.POST("/api/v1/sets/{name}/promotions", {
              params: { path: { name: view.name } },
              body: { environment, comment },
            }),
          );
          await client.invalidateQueries();
          const first = promotion.parts[0]?.deployment;
          if (first) await go(`/deployments/${first}`);
        }}
      />
    </section>
  );
}
