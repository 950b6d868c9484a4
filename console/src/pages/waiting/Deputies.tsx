import { useQuery, useQueryClient } from "@tanstack/react-query";
import { format } from "date-fns";
import { useState } from "react";
import { api, need } from "../../api/client";
import { deputies as deputiesQuery, me } from "../../api/queries";
import { Field, Refused, useTrying } from "../../design/form";
import { At } from "../../design/time";
import { SECTION_HEAD, START } from "../../design/classes";

const DEPUTIES = "max-w-140 mt-6 [&_h2]:m-0! [&_form]:mx-0 [&_form]:my-2.5";

/** Who decides in the reader's place for a time, and in whose place the reader does. */
export function Deputies() {
  const known = useQuery(deputiesQuery());
  const reader = useQuery(me()).data?.name ?? "";
  const client = useQueryClient();
  const [naming, name] = useState(false);
  const end = async (id: number) => {
    await need(api.DELETE("/api/v1/deputies/{id}", { params: { path: { id } } }));
    await client.invalidateQueries({ queryKey: ["deputies"] });
  };
  return (
    <section className={DEPUTIES} aria-label="Deputies">
      <div className={SECTION_HEAD}>
        <h2>Deputies</h2>
        <button type="button" className="btn small" aria-expanded={naming} onClick={() => name(!naming)}>
          Name one
        </button>
      </div>
      {naming && <Name onNamed={() => name(false)} />}
      {known.data?.length === 0 && !naming && (
        <p className="quiet small-text">
          While you are away somebody else can decide and tick in your place; the two of you count once.
        </p>
      )}
      <ul className="notices">
        {known.data?.map((each) => (
          <li key={each.id} className="read">
            <div>
              {each.deputy === reader ? "You" : <b>{each.deputy}</b>} in{" "}
              {each.account === reader ? (
                "your place"
              ) : (
                <>
                  the place of <b>{each.account}</b>
                </>
              )}
              , <At time={each.from} /> until <At time={each.until} />
            </div>
            <button type="button" className="btn small quiet-btn" onClick={() => void end(each.id)}>
              End
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Name({ onNamed }: { onNamed: () => void }) {
  const client = useQueryClient();
  const [deputy, setDeputy] = useState("");
  const [from, setFrom] = useState("");
  const [until, setUntil] = useState("");
  const { trying, refused } = useTrying();
  const save = () =>
    trying(async () => {
      await need(
        api.POST("/api/v1/deputies", {
          body: { deputy, from: from ? new Date(from).toISOString() : undefined, until: new Date(until).toISOString() },
        }),
      );
      await client.invalidateQueries({ queryKey: ["deputies"] });
      onNamed();
    });
  return (
    <form
      className={START}
      onSubmit={(event) => {
        event.preventDefault();
        void save();
      }}
    >
      <Field label="Who decides in your place" at="/deputy" refused={refused}>
        <input
          value={deputy}
          onChange={(event) => setDeputy(event.target.value)}
          required
          placeholder="their account"
        />
      </Field>
      <Field label="From (empty: now)" at="/from" refused={refused}>
        <input type="datetime-local" value={from} onChange={(event) => setFrom(event.target.value)} />
      </Field>
      <Field label="Until" at="/until" refused={refused}>
        <input
          type="datetime-local"
          value={until}
          onChange={(event) => setUntil(event.target.value)}
          required
          min={format(new Date(), "yyyy-MM-dd'T'HH:mm")}
        />
      </Field>
      <Refused refused={refused} beside={["/deputy", "/from", "/until"]} />
      <button type="submit" className="btn">
        Name as deputy
      </button>
    </form>
  );
}
