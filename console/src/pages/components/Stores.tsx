import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { stores } from "../../api/components";
import { At } from "../../design/time";
import { COMPONENT_PART } from "../../design/classes";
import { EVENTS } from "./classes";

/** The stores that are observed, and what was seen in them. */
export function Stores({ name }: { name: string }) {
  const observed = useQuery(stores(name));
  if (!observed.data || observed.data.length === 0) return null;
  return (
    <section className={`${COMPONENT_PART} sheet events ${EVENTS}`}>
      <header>
        <h2>Observed stores</h2>
      </header>
      {observed.data.map((store) => (
        <div key={store.id} className="pb-2 text-[13px] [&_ul]:p-0">
          <p>
            <b>{store.where.kind}</b>{" "}
            <code className="wrap-anywhere">
              {store.where.address}
              {store.where.name && ` ${store.where.name}`} {store.where.pattern}
            </code>{" "}
            <span className="quiet">
              {store.error ? (
                ""
              ) : store.lookedAt ? (
                <>
                  looked at <At time={store.lookedAt} />
                  {store.sightings.length === 0 && "; nothing that matches is there yet"}
                </>
              ) : (
                "not looked at yet"
              )}
            </span>
          </p>
          {store.error && (
            <p className="bad" role="alert">
              {store.error}
            </p>
          )}
          <ul>
            {store.sightings.slice(0, 8).map((seen) => (
              <li key={seen.name}>
                <At time={seen.seenAt} />{" "}
                {seen.version ? (
                  <Link className="v" to={`/versions/${name}/${seen.version}`}>
                    {seen.version}
                  </Link>
                ) : (
                  <b>{seen.name}</b>
                )}{" "}
                <code title={seen.digest}>{seen.digest.replace(/^sha256:/, "").slice(0, 12)}</code>{" "}
                {seen.reason && <span className={seen.version ? "warn" : "quiet"}>{seen.reason}</span>}
              </li>
            ))}
          </ul>
        </div>
      ))}
    </section>
  );
}
