import { useMay } from "../../api/may";
import { useQueries, useQuery } from "@tanstack/react-query";
import { useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { whereabouts } from "../../api/queries";
import { Loading, Trouble } from "../../design/parts";
import { Moment } from "../../design/Moment";
import { At } from "../../design/time";
import { None, Sheet } from "./parts";
import { grants, placeSettings, secrets } from "./queries";
import { SetSecret, SetVariable } from "./SetValue";
import { changed, changedBetween, setBetween, isOwn, reachOf, secretIn, variablesOf, type Held } from "./values";
import { Wide } from "../../design/Wide";

type Revision = Schemas["RevisionView"];
type Kept = Schemas["SetSecret"];

const FIRST = "sticky left-0 bg-surface";

/** What a component is given in each environment and on each host: variables with their values, secrets by name. */
export default function Values() {
  const where = useQuery(whereabouts());
  const [params, setParams] = useSearchParams();
  const set = (name: string, value: string) =>
    setParams((now) => {
      if (value) now.set(name, value);
      else now.delete(name);
      return now;
    });
  const [since, until] = [params.get("since") ?? "", params.get("until") ?? ""];
  if (where.isPending) return <Loading />;
  if (where.isLoadingError) return <Trouble whole error={where.error} />;
  const names = where.data.rows.map((row) => row.component);
  const chosen = params.get("component") ?? names[0] ?? "";
  const environments = (where.data.rows.find((row) => row.component === chosen)?.cells ?? [])
    .filter((cell) => cell.hosts > 0)
    .map((cell) => cell.environment);
  return (
    <>
      <title>Variables and secrets · Settings · Paseo</title>
      <div className="mb-4 flex flex-wrap items-center gap-4">
        <h1 className="m-0 grow">Variables and secrets</h1>
        <label className="flex min-w-0 items-center gap-2 text-[13px] text-ink-2">
          of
          <select value={chosen} onChange={(event) => set("component", event.target.value)}>
            {names.map((name) => (
              <option key={name}>{name}</option>
            ))}
          </select>
        </label>
        <Moment
          label="What changed since then"
          value={since}
          none="changed since…"
          onChoose={(at) => set("since", at)}
        />
        {since && (
          <Moment label="What changed until then" value={until} none="until now" onChoose={(at) => set("until", at)} />
        )}
      </div>
      {names.length === 0 && <None>There is no component yet.</None>}
      {chosen !== "" && environments.length === 0 && <None>{chosen} has no place yet, so nothing is given to it.</None>}
      {environments.length > 0 && (
        <Matrix key={chosen} component={chosen} environments={environments} since={since} until={until} />
      )}
    </>
  );
}

interface MatrixProps {
  component: string;
  environments: string[];
  /** The moments between which it is said what changed; empty: it is not said, and until now. */
  since: string;
  until: string;
}

function Matrix({ component, environments, since, until }: MatrixProps) {
  const known = useQueries({ queries: environments.map((each) => placeSettings(component, each)) });
  const kept = useQuery(secrets());
  const granted = useQuery(grants(component));
  const may = useMay();
  const failed = known.find((each) => each.isError)?.error ?? kept.error;
  if (failed) return <Trouble error={failed} />;
  if (known.some((each) => each.isPending) || kept.isPending) return <Loading />;
  const newest = known.map((each) => each.data?.[0]);
  const held = newest.map(variablesOf);
  const variables = [...new Set(held.flatMap((each) => Object.keys(each)))].sort();
  const named = [
    ...new Set([...(granted.data ?? []), ...newest.flatMap((each) => each?.settings.secrets ?? [])]),
  ].sort();
  const hosts = newest.map((each) => Object.keys(each?.settings.hosts ?? {}));
  return (
    <>
      <Sheet
        title={component}
        about="A variable holds from the next deployment or a redeploy on. A secret is shown by its revision alone."
        acts={
          <>
            {may("EDIT_ENVIRONMENT", { component }) && (
              <SetVariable component={component} environments={environments} hosts={hosts} />
            )}
            {may("SET_SECRET", { component }) && (
              <SetSecret component={component} environments={environments} named={named} />
            )}
          </>
        }
      >
        {variables.length + named.length === 0 ? (
          <None>Nothing is given to it yet.</None>
        ) : (
          <Wide label={`What ${component} is given`}>
            <table className="w-full max-sm:min-w-[600px]">
              <thead>
                <tr>
                  <th className={FIRST}>Name</th>
                  {environments.map((each) => (
                    <th key={each}>{each}</th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {variables.map((name) => (
                  <tr key={name}>
                    <td className={FIRST}>
                      <code className="font-semibold">{name}</code>
                    </td>
                    {environments.map((each, at) => (
                      <td key={each}>
                        <Variable held={held[at]?.[name]} />
                      </td>
                    ))}
                  </tr>
                ))}
                {named.map((name) => (
                  <tr key={name}>
                    <td className={FIRST}>
                      <code className="font-semibold">{name}</code>{" "}
                      <span className="text-[12px] text-ink-3">secret</span>
                    </td>
                    {environments.map((each) => (
                      <td key={each}>
                        <Secret {...secretIn(kept.data ?? [], name, component, each)} />
                      </td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </table>
          </Wide>
        )}
      </Sheet>
      {since && (
        <Sheet
          title="What changed"
          about={
            <>
              Between <At time={new Date(since).toISOString()} /> and{" "}
              {until ? <At time={new Date(until).toISOString()} /> : "now"}; of a secret only that it was set.
            </>
          }
        >
          {environments.map((each, at) => (
            <Changed
              key={each}
              environment={each}
              lines={changedBetween(known[at]?.data ?? [], new Date(since), until ? new Date(until) : new Date())}
              secrets={setBetween(
                kept.data ?? [],
                component,
                each,
                new Date(since),
                until ? new Date(until) : new Date(),
              )}
            />
          ))}
        </Sheet>
      )}
      {environments.map((each, at) => (
        <Revisions key={each} environment={each} revisions={known[at]?.data ?? []} />
      ))}
    </>
  );
}

const Variable = ({ held }: { held: Held | undefined }) => (
  <>
    {held?.value === undefined ? (
      <span className="text-ink-3">{held ? "" : "not set"}</span>
    ) : (
      <code className="[overflow-wrap:anywhere]">{held.value}</code>
    )}
    {held?.hosts.map((each) => (
      <div key={each.host} className="text-[12px]">
        on {each.host}: <code className="[overflow-wrap:anywhere]">{each.value}</code>
      </div>
    ))}
  </>
);

function Secret({ nearest, hosts }: ReturnType<typeof secretIn>) {
  return (
    <>
      {nearest ? (
        <span className={isOwn(nearest) ? "" : "text-ink-3"}>
          ● revision {nearest.revisions}
          <span className="block text-[12px]">
            {!isOwn(nearest) && <>set for {reachOf(nearest)}; </>}
            {nearest.by ?? "the service"}, <At time={nearest.at} />
          </span>
        </span>
      ) : (
        <span className={hosts.length > 0 ? "text-ink-3" : "bad"}>
          {hosts.length > 0 ? "" : "no value: what needs it fails"}
        </span>
      )}
      {hosts.map((each) => (
        <div key={each.host} className="text-[12px]">
          on {each.host}: ● revision {each.revisions}
        </div>
      ))}
    </>
  );
}

function Changed({ environment, lines, secrets }: { environment: string; lines: string[]; secrets: Kept[] }) {
  return (
    <div className="mb-3 text-[13px]">
      <b>{environment}</b>
      {lines.length + secrets.length === 0 && <span className="text-ink-2"> is as it was</span>}
      {lines.map((line) => (
        <code key={line} className="block text-[12px] [overflow-wrap:anywhere]">
          {line}
        </code>
      ))}
      {secrets.map((each) => (
        <div key={`${each.name} ${reachOf(each)} ${each.host}`} className="text-[12px]">
          <code>{each.name}</code> of {reachOf(each)}
          {each.host && ` on ${each.host}`}: revision {each.revisions}, {each.by ?? "the service"},{" "}
          <At time={each.at} />
        </div>
      ))}
    </div>
  );
}

/** What each revision of a place's settings changed, the newest first. */
function Revisions({ environment, revisions }: { environment: string; revisions: Revision[] }) {
  return (
    <details className="mb-2 text-[13px]">
      <summary className="cursor-pointer">
        <b>{environment}</b>{" "}
        <span className="text-ink-2">
          revision {revisions[0]?.revision}, {revisions[0]?.by}, {revisions[0] && <At time={revisions[0].at} />}
        </span>
      </summary>
      <ul className="m-0 my-2 grid list-none gap-2 p-0 pl-4">
        {revisions.map((each, at) => (
          <li key={each.revision}>
            revision {each.revision}, {each.by}, <At time={each.at} />
            {changed(revisions[at + 1], each).map((line) => (
              <code key={line} className="block text-[12px] [overflow-wrap:anywhere]">
                {line}
              </code>
            ))}
          </li>
        ))}
      </ul>
    </details>
  );
}
