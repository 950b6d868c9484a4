import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, need } from "../../api/client";
import { PLAIN } from "../../design/classes";

const SHOWN = 200;

/** What a version is made of, where a report of parts says so. */
export function Parts({ component, number }: { component: string; number: string }) {
  const [text, setText] = useState("");
  const found = useQuery({
    queryKey: ["parts", component, number],
    queryFn: () =>
      need(api.GET("/api/v1/versions/{component}/{number}/parts", { params: { path: { component, number } } })),
    staleTime: Infinity,
  });
  if (!found.data || found.data.total === 0) return null;
  const { total, unlicensed, parts } = found.data;
  const small = text.toLowerCase();
  const which = parts.filter((each) =>
    `${each.name}@${each.version ?? ""} ${each.licence ?? ""}`.toLowerCase().includes(small),
  );
  return (
    <section className="sheet pad" aria-label="Parts">
      <h2>Parts</h2>
      <p className="quiet">
        {total} {total === 1 ? "part" : "parts"}
        {unlicensed > 0 && `, ${unlicensed} of them without a licence`}
      </p>
      {total > 10 && (
        <input
          aria-label="Only parts with"
          placeholder="only parts with…"
          className="my-2 w-full"
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
      )}
      <ul className={`${PLAIN} max-h-72 overflow-auto`} tabIndex={0} aria-label="Parts by name">
        {which.slice(0, SHOWN).map((each) => (
          <li key={`${each.name} ${each.version}`} className="[overflow-wrap:anywhere]">
            <Link to={`/packages?name=${encodeURIComponent(each.name)}`}>{each.name}</Link> {each.version}{" "}
            <span className="quiet">{each.licence ?? "no licence told"}</span>
          </li>
        ))}
      </ul>
      {which.length > SHOWN && <p className="quiet">and {which.length - SHOWN} more: say which above</p>}
    </section>
  );
}
