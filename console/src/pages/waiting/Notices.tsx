import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, need } from "../../api/client";
import { following, noticeChoices, notices as noticesQuery, whereabouts } from "../../api/queries";
import { tellInBrowser, useTelling } from "../../api/tell";
import { At } from "../../design/time";
import { byThing } from "./about";
import { Wide } from "../../design/Wide";
import { SECTION_HEAD } from "../../design/classes";

const NOTICE = "flex justify-between gap-2.5 border-t border-t-line py-2 text-[13px] leading-[18px]";

const CHOICES =
  "mt-2 mb-3 text-[12px] [&_table]:w-full [&_table]:mt-1.5 [&_td]:pr-1.5 [&_td]:pl-0 [&_td]:py-1 " + "[&_td]:align-top";

/** What the reader was told, and how. */
export function Notices() {
  const notices = useQuery(noticesQuery());
  const client = useQueryClient();
  const [choosing, choose] = useState(false);
  const all = notices.data?.notices ?? [];
  const read = async () => {
    await need(api.POST("/api/v1/notices/read", { body: { upTo: all[0]?.id ?? 0 } }));
    await client.invalidateQueries({ queryKey: ["notices"] });
  };
  return (
    <aside aria-label="What you were told">
      <div className={SECTION_HEAD}>
        <h2>You were told</h2>
        <span>
          {(notices.data?.unread ?? 0) > 0 && (
            <button type="button" className="btn small" onClick={() => void read()}>
              All read
            </button>
          )}{" "}
          <button type="button" className="btn small" aria-expanded={choosing} onClick={() => choose(!choosing)}>
            Choose
          </button>
        </span>
      </div>
      {choosing && <Choices />}
      <ul className="notices">
        {byThing(all)
          .slice(0, 20)
          .map((each) => (
            <li key={each.path} className={NOTICE}>
              <div className="min-w-0">
                <Link className={each.unread ? "font-semibold" : ""} to={each.path}>
                  {each.newest.title}
                </Link>
                {each.earlier.length > 0 && (
                  <details className="quiet">
                    <summary>{each.earlier.length} earlier about it</summary>
                    {each.earlier.map((one) => (
                      <div key={one.id}>
                        <At time={one.at} /> {one.title}
                      </div>
                    ))}
                  </details>
                )}
              </div>
              <span className="quiet text-[12px] whitespace-nowrap">
                <At time={each.newest.at} />
              </span>
            </li>
          ))}
      </ul>
      {notices.data && all.length === 0 && <p className="quiet">Nothing so far.</p>}
    </aside>
  );
}

function Choices() {
  const choices = useQuery(noticeChoices());
  const where = useQuery(whereabouts());
  const client = useQueryClient();
  const [component, setComponent] = useState("");
  const own = component ? choices.data?.components[component] : undefined;
  const shown = (component ? (own ?? choices.data?.everywhere) : choices.data?.everywhere) ?? [];
  const inBrowser = useTelling();
  const followed = useQuery(following()).data ?? [];
  const [said, setSaid] = useState("");
  const fresh = () => client.invalidateQueries({ queryKey: ["notices"] });
  const set = async (event: string, channel: string, delivery: string) => {
    await need(
      api.PUT("/api/v1/notices/choices", { body: { event, channel, delivery, component: component || undefined } }),
    );
    await fresh();
  };
  const asElsewhere = async () => {
    await need(api.DELETE("/api/v1/notices/choices/{component}", { params: { path: { component } } }));
    await fresh();
  };
  return (
    <div className={CHOICES}>
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          checked={inBrowser}
          onChange={(event) => void tellInBrowser(event.target.checked).then(setSaid)}
        />
        by the browser too, while no page of Paseo is looked at
      </label>
      {said && (
        <p className="bad" role="alert">
          {said}
        </p>
      )}
      {followed.length > 0 && (
        <p className="quiet">
          You follow{" "}
          {followed.map((each, at) => (
            <span key={`${each.what} ${each.name}`}>
              {at > 0 && ", "}
              <Link to={`/${each.what}s/${each.name}`}>
                {each.what} {each.name}
              </Link>
            </span>
          ))}
          .
        </p>
      )}
      <select aria-label="Of which component" value={component} onChange={(event) => setComponent(event.target.value)}>
        <option value="">of every component</option>
        {where.data?.rows.map((row) => (
          <option key={row.component} value={row.component}>
            of {row.component} alone{choices.data?.components[row.component] ? ", otherwise" : ""}
          </option>
        ))}
      </select>
      {own && (
        <button type="button" className="btn small quiet-btn" onClick={() => void asElsewhere()}>
          As of every other
        </button>
      )}
      <Wide label="What you are told of">
        <table>
          <thead>
            <tr>
              <th>You are told when</th>
              <th>here</th>
              <th>by mail</th>
            </tr>
          </thead>
          <tbody>
            {shown.map((each) => (
              <tr key={each.event}>
                <td>{each.words}</td>
                <td>
                  <input
                    type="checkbox"
                    aria-label={`${each.words}: here`}
                    checked={each.console !== "off"}
                    onChange={(event) => void set(each.event, "console", event.target.checked ? "now" : "off")}
                  />
                </td>
                <td>
                  <select
                    aria-label={`${each.words}: by mail`}
                    value={each.mail}
                    onChange={(event) => void set(each.event, "mail", event.target.value)}
                  >
                    {["now", "hourly", "daily", "off"].map((word) => (
                      <option key={word}>{word}</option>
                    ))}
                  </select>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
    </div>
  );
}
