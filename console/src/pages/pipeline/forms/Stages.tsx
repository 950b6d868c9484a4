import { GripVertical } from "lucide-react";
import { memo, useEffect, useMemo, useRef, useState } from "react";
import { parse } from "yaml";
import { nodesAt, readyStages, type Known } from "../../../editor/completion";
import { keysAt, valueAt, type Value } from "../../../editor/edits";
import { Fields } from "../../../editor/forms/Fields";
import { INPUT } from "../../../editor/forms/Text";
import type { Writing } from "../../../editor/forms/writing";
import { Moves } from "../../../editor/forms/Items";

const NAME = /^[a-z0-9][a-z0-9-]{0,62}$/;

/** What a row of the list does; it stays the same while the text changes, so that no other row is drawn anew. */
interface Acts {
  show: (name: string) => void;
  move: (from: number, to: number) => void;
  take: (name: string) => void;
  drag: (at: number) => void;
  drop: (at: number) => void;
}

/** The stages: put in order by dragging or by arrows, each with a form, new ones from what others need. */
export function Stages({ writing, known }: { writing: Writing; known: Known }) {
  const names = keysAt(writing.opened, ["stages"]);
  const [shown, setShown] = useState<string>();
  const dragged = useRef<number>(undefined);
  const latest = useRef(writing);
  useEffect(() => {
    latest.current = writing;
  }, [writing]);
  const acts = useMemo(
    (): Acts => ({
      show: (name) => {
        setShown((before) => (before === name ? undefined : name));
        latest.current.look(["stages", name]);
      },
      move: (from, to) => latest.current.move(["stages"], from, to),
      take: (name) => latest.current.write(["stages", name], undefined),
      drag: (at) => (dragged.current = at),
      drop: (at) => {
        if (dragged.current !== undefined) latest.current.move(["stages"], dragged.current, at);
        dragged.current = undefined;
      },
    }),
    [setShown],
  );
  const properties = Object.entries(
    nodesAt(writing.schema, ["stages", "a"]).find((node) => node.properties)?.properties ?? {},
  );
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-2">
      <ol className="m-0 grid list-none grid-cols-[minmax(0,1fr)] gap-1 p-0" aria-label="Stages in their order">
        {names.map((name, at) => (
          <Row key={name} name={name} at={at} of={names.length} acts={acts}>
            {shown === name && name !== "like" && (
              <div className="grid grid-cols-[minmax(0,1fr)] gap-3 border-t border-line p-3">
                <After
                  writing={writing}
                  name={name}
                  others={names.filter((other) => other !== name && other !== "like")}
                />
                <Fields writing={writing} path={["stages", name]} properties={properties} without={["after"]} />
              </div>
            )}
          </Row>
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

interface RowProps {
  name: string;
  at: number;
  of: number;
  acts: Acts;
  /** Its form, where it is shown. */
  children: React.ReactNode;
}

const Row = memo(function Row({ name, at, of, acts, children }: RowProps) {
  return (
    <li
      draggable
      onDragStart={() => acts.drag(at)}
      onDragOver={(event) => event.preventDefault()}
      onDrop={() => acts.drop(at)}
      className="rounded-[4px] border border-line bg-surface"
    >
      <div className="flex items-center gap-2 px-2 py-1">
        <GripVertical size={14} className="flex-none cursor-grab text-ink-3" aria-hidden="true" />
        <button
          type="button"
          className="grow cursor-pointer border-0 bg-transparent p-0 text-left font-semibold text-ink"
          aria-expanded={Boolean(children)}
          onClick={() => acts.show(name)}
        >
          {name}
        </button>
        <Moves what={name} at={at} of={of} onMove={(to) => acts.move(at, to)} onTake={() => acts.take(name)} />
      </div>
      {children}
    </li>
  );
});

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
  const chosen = ready.find((each) => each.detail === kind);
  const standard = chosen?.label ?? "";
  const wanted = name || standard;
  const reason =
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
        if (wanted && !reason && body !== undefined) {
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
            <option key={each.detail} value={each.detail}>
              {each.detail}
            </option>
          ))}
        </select>
      </label>
      <label className="grid gap-1 text-[12px] text-ink-2">
        Its name
        <input
          value={name}
          placeholder={standard || "name"}
          onChange={(event) => setName(event.target.value)}
          className={INPUT}
        />
      </label>
      <button type="submit" className="btn small" disabled={wanted === "" || reason !== ""}>
        Add stage
      </button>
      {reason && (
        <span className="bad text-[12px]">
          {wanted} {reason}
        </span>
      )}
    </form>
  );
}
