import { ArrowDown, ArrowUp, X } from "lucide-react";
import { valueAt, type Path, type Value } from "../edits";
import { openNode, type Schema } from "../completion";
import { Fields } from "./Fields";
import { plain, Text } from "./Text";
import type { Writing } from "./writing";
import { alternativeOf } from "./kinds";

interface ItemsProps {
  writing: Writing;
  path: Path;
  name: string;
  texts: boolean;
  mapping: Schema | undefined;
}

/** A list: texts one by one, mappings each as a form of its own; moved, taken away and added. */
export function Items({ writing, path, name, texts, mapping }: ItemsProps) {
  const found = valueAt(writing.opened, path);
  const alone = typeof found === "string";
  const items = alone ? [found] : ((found ?? []) as Value[]);
  const set = (at: number, value: Value | undefined) => {
    if (alone) writing.write(path, value);
    else writing.write([...path, at], value);
  };
  return (
    <div className="grid gap-1">
      {items.map((item, at) => (
        <div key={at} className="grid grid-cols-[minmax(0,1fr)_auto] items-start gap-2">
          {typeof item === "object" && !Array.isArray(item) ? (
            <div className="rounded-[4px] border border-line p-2">
              <Fields
                writing={writing}
                path={[...path, at]}
                properties={Object.entries(
                  (alternativeOf(writing.schema, mapping, item) ?? openNode(writing.schema, mapping)[0])?.properties ??
                    {},
                )}
              />
            </div>
          ) : (
            <Text
              label={`${name} ${at + 1}`}
              names={writing.names(name)}
              value={plain(item)}
              onWrite={(text) => set(at, text || undefined)}
            />
          )}
          <Moves
            what={`${name} ${at + 1}`}
            at={at}
            of={items.length}
            onMove={(to) => writing.move(path, at, to)}
            onTake={() => set(at, undefined)}
          />
        </div>
      ))}
      <div className="flex gap-2">
        {texts && (
          <NewText
            key={items.length}
            name={name}
            names={writing.names(name).filter((each) => !items.includes(each))}
            onAdd={(text) => add(writing, path, found, text)}
          />
        )}
        {mapping && (
          <button
            type="button"
            className="btn small"
            onClick={() => add(writing, path, found, beginning(writing.schema, mapping))}
          >
            Add{texts ? " with more" : ""}
          </button>
        )}
      </div>
    </div>
  );
}

function add(writing: Writing, path: Path, found: unknown, value: Value) {
  if (Array.isArray(found) && found.length > 0) writing.write([...path, found.length], value);
  else writing.write(path, typeof found === "string" ? [found, value] : [value]);
}

/** A mapping with what it needs, or its first key. */
function beginning(schema: Schema, mapping: Schema): Value {
  const [first] = Object.keys(mapping.properties ?? {});
  const keys = mapping.required ?? (first ? [first] : []);
  return Object.fromEntries(
    keys.map((key) => [
      key,
      openNode(schema, mapping.properties?.[key]).some((each) => each.type === "boolean") ? true : "…",
    ]),
  );
}

function NewText({ name, names, onAdd }: { name: string; names: string[]; onAdd: (text: string) => void }) {
  return (
    <div className="grow">
      <Text
        label={`another of ${name}`}
        placeholder="another"
        names={names}
        value=""
        onWrite={(text) => text && onAdd(text)}
      />
    </div>
  );
}

interface MovesProps {
  what: string;
  at: number;
  of: number;
  onMove: (to: number) => void;
  onTake: () => void;
}

export const Moves = ({ what, at, of, onMove, onTake }: MovesProps) => (
  <span className="flex">
    <button
      type="button"
      className="btn small quiet-btn disabled:opacity-0"
      aria-label={`${what} up`}
      disabled={at === 0}
      onClick={() => onMove(at - 1)}
    >
      <ArrowUp size={14} />
    </button>
    <button
      type="button"
      className="btn small quiet-btn disabled:opacity-0"
      aria-label={`${what} down`}
      disabled={at === of - 1}
      onClick={() => onMove(at + 1)}
    >
      <ArrowDown size={14} />
    </button>
    <button type="button" className="btn small quiet-btn" aria-label={`Take ${what} away`} onClick={onTake}>
      <X size={14} />
    </button>
  </span>
);
