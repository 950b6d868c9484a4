import { useState } from "react";
import type { Known } from "../../../editor/completion";
import { valueAt } from "../../../editor/edits";
import type { Writing } from "../../../editor/forms/writing";
import { Moves } from "../../../editor/forms/Items";

/** The environments that versions walk through, in order. */
export function Route({ writing, known }: { writing: Writing; known: Known }) {
  const found = valueAt(writing.opened, ["route"]);
  const route = (Array.isArray(found) ? found : []) as Record<string, unknown>[];
  const named = route.flatMap((step) => Object.keys(step));
  const left = known.environments.filter((each) => !named.includes(each));
  const [chosen, setChosen] = useState("");
  const environment = left.includes(chosen) ? chosen : (left[0] ?? "");
  if (found !== undefined && !Array.isArray(found))
    return <p className="m-0 text-ink-2">A piece says it all: see the text.</p>;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-2">
      {route.length === 0 && <p className="m-0 text-ink-2">Its versions go nowhere by themselves.</p>}
      <ol className="m-0 grid list-none gap-1 p-0" aria-label="The route">
        {route.map((step, at) => (
          <li key={at} className="flex items-center gap-2 rounded-[4px] border border-line bg-surface px-3 py-1">
            <span className="grow">
              {Object.entries(step).map(([name, mode]) => (
                <label key={name} className="mr-3 inline-flex items-center gap-2">
                  <b>{name}</b>
                  {typeof mode === "string" ? (
                    <select
                      aria-label={`How versions enter ${name}`}
                      value={mode}
                      onChange={(event) => writing.write(["route", at, name], event.target.value)}
                    >
                      <option>automatic</option>
                      <option>on-request</option>
                    </select>
                  ) : (
                    "a piece"
                  )}
                </label>
              ))}
            </span>
            <Moves
              what={Object.keys(step).join(" and ")}
              at={at}
              of={route.length}
              onMove={(to) => writing.move(["route"], at, to)}
              onTake={() => writing.write(["route", at], undefined)}
            />
          </li>
        ))}
      </ol>
      {left.length > 0 && (
        <form
          className="flex items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            const step = { [environment]: "on-request" };
            writing.write(route.length > 0 ? ["route", route.length] : ["route"], route.length > 0 ? step : [step]);
          }}
        >
          <label className="grid gap-1 text-[12px] text-ink-2">
            Then to
            <select value={environment} onChange={(event) => setChosen(event.target.value)}>
              {left.map((each) => (
                <option key={each}>{each}</option>
              ))}
            </select>
          </label>
          <button type="submit" className="btn small">
            Add to the route
          </button>
        </form>
      )}
    </div>
  );
}
