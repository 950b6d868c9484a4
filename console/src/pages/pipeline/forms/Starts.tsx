import { useState } from "react";
import { Pushes } from "./Pushes";
import { nodesAt, type Known } from "../../../editor/completion";
import { valueAt, type Value } from "../../../editor/edits";
import { Fields } from "../../../editor/forms/Fields";
import type { Writing } from "../../../editor/forms/writing";
import { Moves } from "../../../editor/forms/Items";
import { alternativeOf } from "../../../editor/forms/kinds";

const KINDS: Record<string, string> = {
  push: "a branch moves",
  tag: "a tag appears",
  clock: "it is time",
  upstream: "a run of another component ends",
  live: "a version of another is live somewhere",
  arrival: "a version arrives from elsewhere",
  preview: "a branch moves that gets a preview",
};

/** What starts a run, each as a form of its own. */
export function Starts({ writing, known }: { writing: Writing; known: Known }) {
  const starts = (valueAt(writing.opened, ["starts"]) ?? []) as Record<string, unknown>[];
  const [kind, setKind] = useState("push");
  const items = nodesAt(writing.schema, ["starts"]).find((node) => node.items)?.items;
  const other = known.components[0] ?? "component";
  const begin: Record<string, Value> = {
    push: { push: ["main"] },
    tag: { tag: "v*" },
    clock: { clock: "0 2 * * 1-5", zone: "UTC" },
    upstream: { upstream: other },
    live: { live: { component: other, in: known.environments[0] ?? "test" } },
    arrival: { arrival: true },
    preview: { preview: ["feature/*"] },
  };
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-2">
      {starts.length === 0 && <p className="m-0 text-ink-2">Only a person starts a run.</p>}
      {starts.map((start, at) => {
        const word = Object.keys(KINDS).find((each) => each in start);
        return (
          <section key={at} className="grid gap-2 rounded-[4px] border border-line bg-surface p-3">
            <div className="flex items-center gap-2">
              <b className="grow">When {word ? KINDS[word] : "…"}</b>
              <Moves
                what={`trigger ${at + 1}`}
                at={at}
                of={starts.length}
                onMove={(to) => writing.move(["starts"], at, to)}
                onTake={() => writing.write(["starts", at], undefined)}
              />
            </div>
            {(word === "push" || word === "preview") && (
              <Pushes
                component={writing.component}
                patterns={[start[word]].flat().filter((each) => typeof each === "string")}
              />
            )}
            <Fields
              writing={writing}
              path={["starts", at]}
              properties={Object.entries(alternativeOf(writing.schema, items, start)?.properties ?? {})}
            />
          </section>
        );
      })}
      <form
        className="flex items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          const value = begin[kind];
          if (value !== undefined)
            writing.write(
              starts.length > 0 ? ["starts", starts.length] : ["starts"],
              starts.length > 0 ? value : [value],
            );
        }}
      >
        <label className="grid gap-1 text-[12px] text-ink-2">
          Starts when
          <select value={kind} onChange={(event) => setKind(event.target.value)}>
            {Object.entries(KINDS).map(([word, words]) => (
              <option key={word} value={word}>
                {words}
              </option>
            ))}
          </select>
        </label>
        <button type="submit" className="btn small">
          Add trigger
        </button>
      </form>
    </div>
  );
}
