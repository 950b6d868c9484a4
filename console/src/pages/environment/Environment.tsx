import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useParams } from "react-router";
import { whereabouts } from "../../api/queries";
import {
  environmentCalendar,
  environmentDifferences,
  environmentPeople,
  environmentRules,
} from "../../api/environments";
import { Follow } from "../../design/Follow";
import { Closing } from "../../design/Closing";
import { Loading, Trouble } from "../../design/parts";
import { In } from "../../design/zone";
import { Calendar } from "./Calendar";
import { RecordOfPeriod } from "./RecordOfPeriod";
import { PLAIN, TITLE_END, SECTION_HEAD, TITLE_ACTION } from "../../design/classes";
import { Gates } from "./Rules";
import { Lately, Now } from "./Now";
import { Wide } from "../../design/Wide";

const ENVIRONMENT_COLUMNS =
  "grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-6 items-start [&>div]:grid " +
  "[&>div]:grid-cols-[minmax(0,1fr)] [&>div]:gap-6 [&_h3]:text-[13px] [&_h3]:mt-3 [&_h3]:mx-0 [&_h3]:mb-1 " +
  "[&_table]:w-full [&_table]:text-[13px] [&_td]:py-1.5 [&_td]:pr-2.5 [&_td]:pl-0 [&_td]:align-top " +
  "max-[900px]:grid-cols-[minmax(0,1fr)]";

/** An environment: what is there now, what has to be met to enter and to leave, who may, and when. */
export default function Environment() {
  const { name = "" } = useParams();
  const rules = useQuery(environmentRules(name));
  const where = useQuery(whereabouts());
  const own = where.data?.environments.find((each) => each.name === name);
  if (rules.isPending) return <Loading height={520} />;
  if (rules.isLoadingError) return <Trouble whole error={rules.error} />;
  return (
    <In zone={rules.data.zone}>
      <title>{`${name} · Paseo`}</title>
      <div className="title-line">
        <h1>{name}</h1>
        <p className={TITLE_END}>
          All times here are those of {rules.data.zone}. Rules of revision {rules.data.revision}.
        </p>
        <div className={TITLE_ACTION}>
          <Follow what="environment" name={name} />
          <Closing environment={name} closed={own?.closed !== undefined && !own.closedByCalendar} />
        </div>
      </div>
      <div className={ENVIRONMENT_COLUMNS}>
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

function CalendarPart({ name }: { name: string }) {
  const calendar = useQuery(environmentCalendar(name));
  if (!calendar.data) return <Loading height={220} />;
  return (
    <section className="sheet pad" aria-label="Calendar">
      <div className={SECTION_HEAD}>
        <h2>Calendar</h2>
        <a className="quiet" href={`/api/v1/environments/${name}/calendar.ics`}>
          as iCalendar
        </a>
      </div>
      <Calendar view={calendar.data} />
    </section>
  );
}

function People({ name }: { name: string }) {
  const people = useQuery(environmentPeople(name));
  return (
    <section className="sheet pad" aria-label="Who may">
      <h2>Who may do what</h2>
      <Wide label="Who may do what here">
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
      </Wide>
    </section>
  );
}
