import { useState } from "react";
import { valueAt, type Path } from "../edits";
import { openNode, type Schema } from "../completion";
import { Fields, ofSchema } from "./Fields";
import { INPUT, plain, Text, typed } from "./Text";
import type { Writing } from "./writing";

/** Names with a form each. */
export function Named({ writing, path, of, what }: { writing: Writing; path: Path; of: Schema; what: string }) {
  const value = (valueAt(writing.opened, path) ?? {}) as Record<string, unknown>;
  const [shown, setShown] = useState<string>();
  const properties = openNode(writing.schema, of).flatMap(ofSchema);
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-1">
      {Object.keys(value).map((key) => (
        <div key={key} className="rounded-[4px] border border-line bg-surface">
          <div className="flex items-center gap-2 px-2 py-1">
            <button
              type="button"
              className="grow cursor-pointer border-0 bg-transparent p-0 text-left font-semibold text-ink"
              aria-expanded={shown === key}
              onClick={() => {
                setShown(shown === key ? undefined : key);
                writing.look([...path, key]);
              }}
            >
              {key}
            </button>
            <button
              type="button"
              className="btn small quiet-btn"
              aria-label={`Take ${key} away`}
              onClick={() => writing.write([...path, key], undefined)}
            >
              ×
            </button>
          </div>
          {shown === key && (
            <div className="border-t border-line p-3">
              <Fields writing={writing} path={[...path, key]} properties={properties} />
            </div>
          )}
        </div>
      ))}
      <Another
        label={`A name for another of ${what}`}
        refused={(name) => !/^[a-z0-9][a-z0-9-]{0,62}$/.test(name) || name in value}
        onAdd={(name) => {
          writing.write([...path, name], {});
          setShown(name);
        }}
      />
    </div>
  );
}

/** Names with a text each. */
export function Pairs({
  id,
  writing,
  path,
  value,
}: {
  id: string;
  writing: Writing;
  path: Path;
  value: Record<string, unknown>;
}) {
  return (
    <div className="grid gap-1">
      {Object.entries(value).map(([key, each]) => (
        <div key={key} className="grid grid-cols-[minmax(0,1fr)_minmax(0,2fr)_auto] items-center gap-2">
          <code className="truncate" title={key}>
            {key}
          </code>
          <Text label={key} value={plain(each)} onWrite={(text) => writing.write([...path, key], typed(each, text))} />
          <button
            type="button"
            className="btn small quiet-btn"
            aria-label={`Take ${key} away`}
            onClick={() => writing.write([...path, key], undefined)}
          >
            ×
          </button>
        </div>
      ))}
      <Another
        id={id}
        label="A name for another"
        refused={(name) => !/^\S+$/.test(name) || name in value}
        onAdd={(name) => writing.write([...path, name], "…")}
      />
    </div>
  );
}

interface AnotherProps {
  id?: string;
  label: string;
  refused: (name: string) => boolean;
  onAdd: (name: string) => void;
}

function Another({ id, label, refused, onAdd }: AnotherProps) {
  const [name, setName] = useState("");
  return (
    <div className="flex gap-2">
      <input
        id={id}
        aria-label={label}
        placeholder="name"
        value={name}
        onChange={(event) => setName(event.target.value)}
        className={INPUT}
      />
      <button
        type="button"
        className="btn small"
        disabled={refused(name)}
        onClick={() => {
          onAdd(name);
          setName("");
        }}
      >
        Add
      </button>
    </div>
  );
}
