import { GripVertical } from "lucide-react";
import { useState } from "react";
import { parse } from "yaml";
import { nodesAt, readyStages, type Known } from "../../../editor/completion";
import { valueAt, type Value } from "../../../editor/edits";
import { Fields, INPUT } from "../../../editor/forms/Fields";
import type { Writing } from "../../../editor/forms/writing";
import { Moves } from "../../../editor/forms/Items";

const NAME = /^[a-z0-9][a-z0-9-]{0,62}$/;

/** The stages: put in order by dragging or by arrows, each with a form, new ones from what others need. */
export function Stages({ writing, known }: { writing: Writing; known: Known }) {
  const stages = (valueAt(writing.opened, ["stages"]) ?? {}) as Record<string, unknown>;
  const names = Object.keys(stages);
  const [shown, setShown] = useState<string>();
  const [dragged, setDragged] = useState<number>();
  const properties = Object.entries(
    nodesAt(writing.schema, ["stages", "a"]).find((node) => node.properties)?.properties ?? {},
  );
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-2">
      <ol className="m-0 grid list-none grid-cols-[minmax(0,1fr)] gap-1 p-0" aria-label="Stages in their order">
        {names.map((name, at) => (
          <li
            key={name}
            draggable
            onDragStart={() => setDragged(at)}
            onDragOver={(event) => event.preventDefault()}
            onDrop={() => {
              if (dragged !== undefined) writing.move(["stages"], dragged, at);
              setDragged(undefined);
            }}
            className="rounded-[4px] border border-[var(--line)] bg-surface"
          >
            <div className="flex items-center gap-2 px-2 py-1">
              <GripVertical size={14} className="flex-none cursor-grab text-ink-3" aria-hidden="true" />
              <button
                type="button"
                className="grow cursor-pointer border-0 bg-transparent p-0 text-left font-semibold text-ink"
                aria-expanded={shown === name}
                onClick={() => {
                  setShown(shown === name ? undefined : name);
                  writing.look(["stages", name]);
                }}
              >
                {name}
              </button>
              <Moves
                what={name}
                at={at}
                of={names.length}
                onMove={(to) => writing.move(["stages"], at, to)}
                onTake={() => writing.write(["stages", name], undefined)}
              />
            </div>
            {shown === name && name !== "like" && (
              <div className="grid grid-cols-[minmax(0,1fr)] gap-3 border-t border-[var(--line)] p-3">
                <After
                  writing={writing}
                  name={name}
                  others={names.filter((other) => other !== name && other !== "like")}
                />
                <Fields writing={writing} path={["stages", name]} properties={properties} without={["after"]} />
              </div>
            )}
          </li>
        ))}
      </ol>
      <NewStage
        known={known}
        names={names}
        onAdd={(name, body) => {
          writing.write(["stages", name], body);
          setShown(name);
        }}
      />
    </div>
  );
}

/** What it comes after: chosen among the others, or the one above. */
function After({ writing, name, others }: { writing: Writing; name: string; others: string[] }) {
  const stage = (valueAt(writing.opened, ["stages", name]) ?? {}) as Record<string, unknown>;
  const said = Array.isArray(stage.after) ? (stage.after as string[]) : undefined;
  const otherwise = "after-any" in stage || "if-failed" in stage;
  const choose = (other: string, on: boolean) => {
    const chosen = others.filter((each) => (each === other ? on : said?.includes(each)));
    writing.write(["stages", name, "after"], chosen);
  };
  return (
    <fieldset className="m-0 border-0 p-0">
      <legend className="p-0 text-[12px] text-ink-2">
        <b className="text-ink">after</b> stages that must have passed or warned;{" "}
        {said
          ? said.length === 0
            ? "none: it starts at once"
            : "these"
          : otherwise
            ? "see below"
            : "the one above it"}
      </legend>
      <div className="mt-1 flex flex-wrap gap-x-4 gap-y-1">
        {others.map((other) => (
          <label key={other} className="flex cursor-pointer items-center gap-1 text-[13px]">
            <input
              type="checkbox"
              checked={said?.includes(other) ?? false}
              onChange={(event) => choose(other, event.target.checked)}
            />
            {other}
          </label>
        ))}
        {said && (
          <button
            type="button"
            className="btn small quiet-btn"
            onClick={() => writing.write(["stages", name, "after"], undefined)}
          >
            The one above it
          </button>
        )}
        {!said && (
          <button
            type="button"
            className="btn small quiet-btn"
            onClick={() => writing.write(["stages", name, "after"], [])}
          >
            At once
          </button>
        )}
      </div>
    </fieldset>
  );
}

function NewStage({
  known,
  names,
  onAdd,
}: {
  known: Known;
  names: string[];
  onAdd: (name: string, body: Value) => void;
}) {
  const ready = readyStages(
    known,
    names.filter((name) => name !== "like"),
  );
  const [kind, setKind] = useState("");
  const [name, setName] = useState("");
  const chosen = ready.find((each) => each.label === kind);
  const wanted = name || kind;
  const doubt =
    wanted === ""
      ? ""
      : names.includes(wanted)
        ? "is there already"
        : NAME.test(wanted)
          ? ""
          : "should be small letters, digits and dashes";
  return (
    <form
      className="flex flex-wrap items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        const body = chosen
          ? Object.values(parse(String(chosen.apply)) as Record<string, Value>)[0]
          : { steps: ["./build.sh"] };
        if (wanted && !doubt && body !== undefined) {
          onAdd(wanted, body);
          setName("");
          setKind("");
        }
      }}
    >
      <label className="grid gap-1 text-[12px] text-ink-2">
        A stage that
        <select value={kind} onChange={(event) => setKind(event.target.value)}>
          <option value="">runs a script</option>
          {ready.map((each) => (
            <option key={each.label} value={each.label}>
              {each.detail}
            </option>
          ))}
        </select>
      </label>
      <label className="grid gap-1 text-[12px] text-ink-2">
        Its name
        <input
          value={name}
          placeholder={kind || "name"}
          onChange={(event) => setName(event.target.value)}
          className={INPUT}
        />
      </label>
      <button type="submit" className="btn small" disabled={wanted === "" || doubt !== ""}>
        Add stage
      </button>
      {doubt && (
        <span className="bad text-[12px]">
          {wanted} {doubt}
        </span>
      )}
    </form>
  );
}
