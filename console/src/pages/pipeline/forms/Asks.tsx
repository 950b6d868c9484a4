import { useState } from "react";
import { nodesAt } from "../../../editor/completion";
import { valueAt } from "../../../editor/edits";
import { Fields } from "../../../editor/forms/Fields";
import { INPUT } from "../../../editor/forms/Text";
import type { Writing } from "../../../editor/forms/writing";

const NAME = /^[a-z0-9][a-z0-9-]{0,62}$/;

/** What a person who starts a run is asked. */
export function Asks({ writing }: { writing: Writing }) {
  const asks = Object.keys((valueAt(writing.opened, ["asks"]) ?? {}) as object);
  const [name, setName] = useState("");
  const properties = Object.entries(
    nodesAt(writing.schema, ["asks", "a"]).find((node) => node.properties)?.properties ?? {},
  );
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-2">
      {asks.length === 0 && <p className="m-0 text-ink-2">Whoever starts a run is asked nothing.</p>}
      {asks.map((ask) => (
        <section key={ask} className="grid gap-2 rounded-[4px] border border-line bg-surface p-3">
          <div className="flex items-center gap-2">
            <b className="grow">{ask}</b>
            <button
              type="button"
              className="btn small quiet-btn"
              onClick={() => writing.write(["asks", ask], undefined)}
            >
              Take away
            </button>
          </div>
          <Fields writing={writing} path={["asks", ask]} properties={properties} />
        </section>
      ))}
      <form
        className="flex items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          writing.write(["asks", name], { question: "…", kind: "flag", default: false });
          setName("");
        }}
      >
        <label className="grid gap-1 text-[12px] text-ink-2">
          Its name
          <input value={name} onChange={(event) => setName(event.target.value)} className={INPUT} />
        </label>
        <button type="submit" className="btn small" disabled={!NAME.test(name) || asks.includes(name)}>
          Add question
        </button>
      </form>
    </div>
  );
}
