import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { triggerEvents } from "../../api/components";
import { At } from "../../design/time";
import { COMPONENT_PART } from "../../design/classes";
import { EVENTS } from "./classes";

type Event = Schemas["TriggerEventView"];

/** What happened, as a sentence that names the component where it does not yet. */
export const sentenceOf = (event: Event) =>
  event.kind === "run" || event.kind === "live" || event.kind === "arrival"
    ? event.sentence
    : `${event.component}: ${event.sentence}`;

/** What may have started runs, the newest first: every trigger that was considered, and what it made of it. */
export function Events({ name }: { name: string }) {
  const seen = useQuery(triggerEvents(name));
  if (!seen.data || seen.data.length === 0) return null;
  return (
    <section className={`${COMPONENT_PART} sheet events ${EVENTS}`}>
      <header>
        <h2>
          What happened, and what it started{" "}
          <Link className="small-text" to={`/events?component=${name}`}>
            all of it
          </Link>
        </h2>
      </header>
      <ul>
        {seen.data.slice(0, 12).map((event) => (
          <li key={event.id}>
            <p>
              <At time={event.at} /> <b>{sentenceOf(event)}</b>{" "}
              <Link to={`/chain?event=${event.id}&of=${event.component}`}>what it led to</Link>
            </p>
            <Considered event={event} />
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Every trigger that was considered, with what it made of it. */
export const Considered = ({ event }: { event: Event }) => (
  <>
    {event.reason && <p className="made quiet">nothing started: {event.reason}</p>}
    {event.considered.map((each) => (
      <p key={`${each.component} ${each.position}`} className="made">
        {each.run === undefined ? (
          <>
            <span className="quiet">
              {each.component}, {each.trigger}: started nothing,
            </span>{" "}
            {each.reason}
          </>
        ) : (
          <>
            <Link to={`/runs/${each.component}/${each.run}`}>
              {each.component}#{each.run}
            </Link>{" "}
            <span className="quiet">started by {each.trigger}</span>
          </>
        )}
      </p>
    ))}
  </>
);
