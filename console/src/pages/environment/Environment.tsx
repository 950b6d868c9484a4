import { useQuery } from "@tanstack/react-query";
import { FilePen } from "lucide-react";
import { useState } from "react";
import { Link, useParams } from "react-router";
import { useMay } from "../../api/may";
import { api, need, type Schemas } from "../../api/client";
import {
  environmentCalendar,
  environmentDifferences,
  environmentPeople,
  environmentRules,
  rulesHistory,
  whereabouts,
} from "../../api/queries";
import { Follow } from "../../design/Follow";
import { Closing } from "../../design/Closing";
import { Glyph, StateWord } from "../../design/Glyph";
import { Loading, Lozenge, Trouble } from "../../design/parts";
import { deploymentState } from "../../design/states";
import { At, Since } from "../../design/time";
import { In } from "../../design/zone";
import { Calendar } from "./Calendar";
import { RecordOfPeriod } from "./RecordOfPeriod";
import { PLAIN, TITLE_END } from "../../design/classes";

const SECTION_END = "flex gap-2 ml-auto self-center";
const RULES_FILE =
  "max-h-105 overflow-auto text-[12px] leading-[17px] bg-ground p-3 rounded-[8px] [&_del]:text-bad " +
  "[&_del]:no-underline [&_ins]:text-good [&_ins]:no-underline";
const RULES_PAST = "[&_li]:px-0 [&_li]:py-2 [&_li]:border-t [&_li]:border-t-line [&_li]:text-[13px]";

/** An environment: what is there now, what has to be met to enter and to leave, who may, and when. */
export default function Environment() {
  const { name = "" } = useParams();
  const rules = useQuery(environmentRules(name));
  const where = useQuery(whereabouts());
  const own = where.data?.environments.find((each) => each.name === name);
  if (rules.isPending) return <Loading height={520} />;
  if (rules.isLoadingError) return <Trouble error={rules.error} />;
  return (
    <In zone={rules.data.zone}>
      <title>{`${name} · Paseo`}</title>
      <div className="title-line">
        <h1>{name}</h1>
        <p className={TITLE_END}>
          All times here are those of {rules.data.zone}. Rules of revision {rules.data.revision}.
        </p>
        <div className="title-action">
          <Follow what="environment" name={name} />
          <Closing environment={name} closed={own?.closed !== undefined && !own.closedByCalendar} />
        </div>
      </div>
      <div className="environment-columns">
        <div>
          <Now name={name} />
          <CalendarPart name={name} />
          <Lately name={name} />
          <RecordOfPeriod name={name} />
        </div>
        <div className="min-w-0">
          <Gates rules={rules.data} />
          <People name={name} />
          <Beside name={name} />
        </div>
      </div>
    </In>
  );
}

const LINES = "m-0 mt-2 max-h-[360px] overflow-auto rounded-[4px] bg-log p-2 font-mono text-[12px] leading-[18px]";

/** Another environment beside this one: rules in sentences, then all else as lines of the environments file. */
function Beside({ name }: { name: string }) {
  const [other, setOther] = useState("");
  const where = useQuery(whereabouts());
  const found = useQuery({ ...environmentDifferences(name, other), enabled: other !== "" });
  const others = where.data?.environments.map((each) => each.name).filter((each) => each !== name) ?? [];
  return (
    <section className="sheet pad" aria-label="Beside another">
      <h2>Beside another</h2>
      <label className="flex items-center gap-2">
        Compare with
        <select value={other} onChange={(event) => setOther(event.target.value)}>
          <option value="">…</option>
          {others.map((each) => (
            <option key={each}>{each}</option>
          ))}
        </select>
      </label>
      {found.isError && <Trouble error={found.error} />}
      {other !== "" && found.data && (
        <>
          {found.data.rules.length + found.data.lines.length === 0 && <p>Both say the same.</p>}
          <ul className={`${PLAIN} mt-2`}>
            {found.data.rules.map((rule) => (
              <li key={`${rule.gate} ${rule.sentence} ${rule.here}`}>
                {rule.sentence}{" "}
                <span className="quiet">
                  {rule.gate}, only in {rule.here ? name : other}
                </span>
              </li>
            ))}
          </ul>
          {found.data.lines.length > 0 && (
            <pre tabIndex={0} aria-label={`${name} and ${other}, line by line`} className={LINES}>
              <span className="block text-ink-2">{`- ${name}   + ${other}`}</span>
              {found.data.lines.map((line, at) => (
                <span
                  key={at}
                  className={`block ${line.startsWith("+") ? "good" : line.startsWith("-") ? "bad" : "text-ink-2"}`}
                >
                  {line || " "}
                </span>
              ))}
            </pre>
          )}
        </>
      )}
    </section>
  );
}

/** What was deployed there last, and where its hosts and values are. */
function Lately({ name }: { name: string }) {
  const list = useQuery({
    queryKey: ["deployments", { environment: name }, "newest"],
    queryFn: () => need(api.GET("/api/v1/deployments", { params: { query: { environment: name, limit: 8 } } })),
  });
  return (
    <section className="sheet pad" aria-label="Lately">
      <div className="section-head">
        <h2>Lately</h2>
        <span className={SECTION_END}>
          <Link to={`/deployments?environment=${encodeURIComponent(name)}`}>All</Link>
          <Link to="/settings/hosts">Hosts</Link>
          <Link to="/settings/values">Variables and secrets</Link>
        </span>
      </div>
      {list.data?.length === 0 && <p className="quiet">Nothing was deployed here yet.</p>}
      <ul className="m-0 list-none p-0">
        {list.data?.map((each) => (
          <li key={each.id} className="flex flex-wrap items-baseline gap-x-3 border-t border-line py-2 text-[13px]">
            <Link to={`/deployments/${each.id}`}>
              {each.component} <span className="v">{each.version}</span>
            </Link>
            <StateWord state={deploymentState(each.status)} />
            <span className="quiet">by {each.requestedBy ?? "the walk"}</span>
            <span className="quiet ml-auto">
              <At time={each.requestedAt} />
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Now({ name }: { name: string }) {
  const where = useQuery(whereabouts());
  const rows =
    where.data?.rows.flatMap((row) =>
      row.cells.filter((cell) => cell.environment === name).map((cell) => ({ component: row.component, cell })),
    ) ?? [];
  const closed = where.data?.environments.find((each) => each.name === name);
  return (
    <section className="sheet pad" aria-label="Now">
      <h2 className="mb-2">Now</h2>
      {closed?.closed && (
        <p className="flex gap-2 items-center py-1.5">
          <Glyph shape="closed" tone="ice" />{" "}
          <span>
            Closed{closed.closedByCalendar && " by its calendar"}
            {closed.closedUntil && (
              <>
                {" "}
                until <At time={closed.closedUntil} />
              </>
            )}
            : “{closed.closed}”
          </span>
        </p>
      )}
      <div className="overflow-x-auto">
        <table>
          <thead>
            <tr>
              <th>Component</th>
              <th>Live</th>
              <th>For</th>
              <th>On its way</th>
            </tr>
          </thead>
          <tbody>
            {rows.map(({ component, cell }) => (
              <tr key={component}>
                <td>
                  <Link to={`/places/${component}/${name}`}>{component}</Link>
                </td>
                <td>
                  {cell.version ? (
                    <Lozenge to={`/versions/${component}/${cell.version}`} glyph={<Glyph shape="live" tone="good" />}>
                      {cell.version}
                    </Lozenge>
                  ) : (
                    <span className="quiet">nothing</span>
                  )}
                </td>
                <td>{cell.since && <Since time={cell.since} />}</td>
                <td>
                  {cell.coming.map((each) => (
                    <Link key={each.deployment} to={`/deployments/${each.deployment}`}>
                      {each.version} {deploymentState(each.status).word}
                    </Link>
                  ))}
                  {cell.marks?.held && <span className="quiet"> held</span>}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {where.data && rows.length === 0 && <p className="quiet">No component has a place here.</p>}
    </section>
  );
}

function CalendarPart({ name }: { name: string }) {
  const calendar = useQuery(environmentCalendar(name));
  if (!calendar.data) return <Loading height={220} />;
  return (
    <section className="sheet pad" aria-label="Calendar">
      <div className="section-head">
        <h2>Calendar</h2>
        <a className="quiet" href={`/api/v1/environments/${name}/calendar.ics`}>
          as iCalendar
        </a>
      </div>
      <Calendar view={calendar.data} />
    </section>
  );
}

function Gates({ rules }: { rules: Schemas["RulesView"] }) {
  const [as, show] = useState<"words" | "file" | "history">("words");
  const may = useMay();
  return (
    <section className="sheet pad" aria-label="Rules">
      <div className="section-head">
        <h2>Rules</h2>
        <div className="tabs" role="tablist">
          {(["words", "file", "history"] as const).map((each) => (
            <button
              key={each}
              type="button"
              role="tab"
              aria-selected={as === each}
              data-state={as === each ? "active" : "inactive"}
              onClick={() => show(each)}
            >
              {each === "words" ? "In words" : each === "file" ? "As a file" : "As they were"}
            </button>
          ))}
        </div>
        {may("EDIT_ENVIRONMENT", { environment: rules.environment }) && (
          <span className={SECTION_END}>
            <Link className="btn small" to={`/environments-file?environment=${rules.environment}`}>
              <FilePen size={14} />
              Edit
            </Link>
            <Link className="btn small" to={`/environments-file?copy=${rules.environment}`}>
              Copy
            </Link>
          </span>
        )}
      </div>
      {as === "words" && <Words words={rules.words} />}
      {as === "file" && (
        <>
          <pre className={RULES_FILE} tabIndex={0}>
            {rules.text}
          </pre>
          <p className="quiet small-text">
            The same as <code>paseo environment export</code> prints of it.
          </p>
        </>
      )}
      {as === "history" && <Past name={rules.environment} />}
    </section>
  );
}

function Words({ words }: { words: Schemas["WordsView"] }) {
  return (
    <>
      <Said head="To be promoted into it" lines={words.promotion} none="Anything may." />
      <Said head="To go on from it" lines={words.toGoOn} none="It stays live, and its tests pass." />
      <Said head="To be rolled back" lines={words.rollback} none="Whoever may roll back starts it at once." />
      <Said
        head="To ask less, to trust more branches or to give secrets"
        lines={words.toLoosen}
        none="It counts at once; what goes live within a day is reviewed."
      />
      {Object.entries(words.components).map(([component, own]) => (
        <Said key={component} head={`${component}, besides`} lines={[...own.toEnter, ...own.toGoOn]} none="" />
      ))}
    </>
  );
}

const Said = ({ head, lines, none }: { head: string; lines: string[]; none: string }) => (
  <>
    <h3>{head}</h3>
    {lines.length === 0 ? (
      <p className="quiet">{none}</p>
    ) : (
      <ul className="rule-words">
        {lines.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
    )}
  </>
);

function Past({ name }: { name: string }) {
  const history = useQuery(rulesHistory(name));
  const all = history.data ?? [];
  return (
    <ol className={RULES_PAST}>
      {all.map((each, at) => {
        const before = new Set(all[at + 1]?.text.split("\n") ?? []);
        const after = new Set(each.text.split("\n"));
        return (
          <li key={each.revision}>
            <b>Revision {each.revision}</b>{" "}
            <span className="quiet">
              by {each.by} <At time={each.at} />
            </span>
            {all[at + 1] && (
              <pre className={RULES_FILE}>
                {[...before]
                  .filter((line) => !after.has(line))
                  .map((line) => (
                    <del key={`-${line}`}>{`− ${line}\n`}</del>
                  ))}
                {[...after]
                  .filter((line) => !before.has(line))
                  .map((line) => (
                    <ins key={`+${line}`}>{`+ ${line}\n`}</ins>
                  ))}
              </pre>
            )}
          </li>
        );
      })}
    </ol>
  );
}

function People({ name }: { name: string }) {
  const people = useQuery(environmentPeople(name));
  return (
    <section className="sheet pad" aria-label="Who may">
      <h2>Who may do what</h2>
      <div className="overflow-x-auto">
        <table>
          <tbody>
            {people.data?.map((each) => (
              <tr key={each.account}>
                <td>
                  <b>{each.account}</b>
                  {each.groups.length > 0 && <span className="quiet small-text"> in {each.groups.join(", ")}</span>}
                </td>
                <td>
                  {each.may.map((action) => action.action.replaceAll("-", " ")).join(", ")}{" "}
                  <span className="quiet small-text">
                    as {[...new Set(each.may.map((action) => action.because))].join(", ")}
                  </span>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}
