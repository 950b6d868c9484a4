import { Switch } from "radix-ui";
import { useId, useState } from "react";
import { valueAt, type Path, type Value } from "../edits";
import { openNode, type Schema } from "../completion";
import { Condition } from "./Condition";
import { Items } from "./Items";
import type { Writing } from "./writing";
import { alternativeOf, describe, kindOf, takesPairs } from "./kinds";

interface FieldsProps {
  writing: Writing;
  path: Path;
  properties: [string, Schema][];
  /** Keys that are asked elsewhere. */
  without?: string[];
}

/** A form for the keys of a mapping, as the schema has them. Those that are set come first. */
export function Fields({ writing, path, properties, without = [] }: FieldsProps) {
  const value = (valueAt(writing.opened, path) ?? {}) as Record<string, unknown>;
  const [more, setMore] = useState(false);
  const asked = properties.filter(([name]) => !without.includes(name));
  const given = asked.filter(([name]) => name in value);
  const rest = asked.filter(([name]) => !(name in value));
  return (
    <div className="grid min-w-0 gap-3">
      {[...given, ...(more ? rest : [])].map(([name, node]) => (
        <FieldOf key={name} writing={writing} path={[...path, name]} name={name} node={node} />
      ))}
      {rest.length > 0 && (
        <button type="button" className={MORE} onClick={() => setMore(!more)}>
          {more ? "Only what is set" : `More: ${rest.map(([name]) => name).join(", ")}`}
        </button>
      )}
    </div>
  );
}

interface FieldProps {
  writing: Writing;
  path: Path;
  name: string;
  node: Schema;
}

const LABEL = "text-[12px] text-ink-2";

/** A text that is typed into. */
export const INPUT =
  "box-border h-8 w-full min-w-0 rounded-[4px] border border-solid border-[var(--line-strong)] bg-surface px-2 " +
  "font-mono text-[13px] text-ink";

const SWITCH =
  "h-5 w-9 flex-none cursor-pointer rounded-full border border-[var(--line-strong)] bg-surface p-0 " +
  "data-[state=checked]:bg-[var(--primary)]";
const THUMB =
  "block size-3.5 translate-x-0.5 rounded-full bg-[var(--ink-3)] data-[state=checked]:translate-x-[18px] " +
  "data-[state=checked]:bg-[var(--on-primary)]";

const MORE = "cursor-pointer justify-self-start border-0 bg-transparent p-0 text-left text-[12px] text-ink-2 underline";

export function FieldOf({ writing, path, name, node }: FieldProps) {
  const id = useId();
  const value = valueAt(writing.opened, path);
  const kind = kindOf(writing.schema, node);
  const about = describe(writing.schema, node);
  const label = (
    <label htmlFor={id} className={LABEL} title={about}>
      <b className="text-ink">{name}</b> {about}
    </label>
  );
  switch (kind.kind) {
    case "flag":
      return (
        <div className="flex items-center gap-2">
          <Toggle id={id} on={value === true} onChange={(on) => writing.write(path, on ? true : undefined)} />
          {label}
        </div>
      );
    case "choice":
      return (
        <div className="grid gap-1">
          {label}
          <select
            id={id}
            value={typeof value === "string" ? value : ""}
            onChange={(event) => writing.write(path, event.target.value || undefined)}
          >
            <option value="">not said</option>
            {kind.of.map((each) => (
              <option key={each}>{each}</option>
            ))}
          </select>
        </div>
      );
    case "text":
      if (typeof value === "object" && value !== null) return <Elsewhere writing={writing} path={path} label={label} />;
      return (
        <div className="grid gap-1">
          {label}
          {kind.condition ? (
            <Condition id={id} writing={writing} path={path} value={plain(value)} />
          ) : (
            <Text id={id} value={plain(value)} onWrite={(text) => writing.write(path, typed(value, text))} />
          )}
        </div>
      );
    case "list":
      if (value !== undefined && !Array.isArray(value) && typeof value !== "string") {
        const own = alternativeOf(writing.schema, kind.mapping ?? node, value);
        if (own) return <Group label={label} writing={writing} path={path} properties={ofSchema(own)} />;
        if (!takesPairs(writing.schema, node)) return <Elsewhere writing={writing} path={path} label={label} />;
        return (
          <div className="grid gap-1">
            {label}
            <Pairs id={id} writing={writing} path={path} value={value as Record<string, unknown>} />
          </div>
        );
      }
      return (
        <div className="grid min-w-0 gap-1" role="group" aria-labelledby={`${id}-of`}>
          <span id={`${id}-of`}>{label}</span>
          <Items writing={writing} path={path} name={name} texts={kind.texts} mapping={kind.mapping} />
        </div>
      );
    case "group": {
      if (kind.text && (typeof value === "string" || value === undefined)) {
        return (
          <div className="grid gap-1">
            {label}
            <Text id={id} value={plain(value)} onWrite={(text) => writing.write(path, text || undefined)} />
          </div>
        );
      }
      const own = alternativeOf(writing.schema, node, value);
      return (
        <Group
          label={label}
          writing={writing}
          path={path}
          properties={(own ? ofSchema(own) : kind.properties).filter(([key]) => key !== "like")}
        />
      );
    }
    case "named":
      return (
        <div className="grid min-w-0 gap-1">
          {label}
          <Named writing={writing} path={path} of={kind.of} what={name} />
        </div>
      );
    case "pairs":
      return (
        <div className="grid gap-1">
          {label}
          <Pairs id={id} writing={writing} path={path} value={(value ?? {}) as Record<string, unknown>} />
        </div>
      );
    default:
      return <Elsewhere writing={writing} path={path} label={label} />;
  }
}

const ofSchema = (node: Schema): [string, Schema][] => Object.entries(node.properties ?? {});

const Group = ({ label, ...fields }: FieldsProps & { label: React.ReactNode }) => (
  <fieldset className="m-0 grid min-w-0 gap-2 border-0 border-l-2 border-solid border-[var(--line)] p-0 pl-3">
    <legend className="p-0">{label}</legend>
    <Fields {...fields} />
  </fieldset>
);

/** Names with a form each. */
export function Named({ writing, path, of, what }: { writing: Writing; path: Path; of: Schema; what: string }) {
  const value = (valueAt(writing.opened, path) ?? {}) as Record<string, unknown>;
  const [shown, setShown] = useState<string>();
  const [name, setName] = useState("");
  const properties = openNode(writing.schema, of).flatMap(ofSchema);
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-1">
      {Object.keys(value).map((key) => (
        <div key={key} className="rounded-[4px] border border-[var(--line)] bg-surface">
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
            <div className="border-t border-[var(--line)] p-3">
              <Fields writing={writing} path={[...path, key]} properties={properties} />
            </div>
          )}
        </div>
      ))}
      <div className="flex gap-2">
        <input
          aria-label={`A name for another of ${what}`}
          placeholder="name"
          value={name}
          onChange={(event) => setName(event.target.value)}
          className={INPUT}
        />
        <button
          type="button"
          className="btn small"
          disabled={!/^[a-z0-9][a-z0-9-]{0,62}$/.test(name) || name in value}
          onClick={() => {
            writing.write([...path, name], {});
            setShown(name);
            setName("");
          }}
        >
          Add
        </button>
      </div>
    </div>
  );
}

export const plain = (value: unknown): string =>
  typeof value === "string" || typeof value === "number" || typeof value === "boolean" ? String(value) : "";

/** A number stays a number, and a text that looks like one a text. */
export const typed = (before: unknown, text: string): Value | undefined =>
  text === "" ? undefined : typeof before !== "string" && /^[0-9]{1,9}$/.test(text) ? Number(text) : text;

interface TextProps {
  id?: string;
  label?: string;
  placeholder?: string;
  value: string;
  onWrite: (text: string) => void;
  /** Told at every key, before anything is written. */
  onType?: (text: string) => void;
}

/** Written when it is left, or at Enter. */
export function Text({ id, label, placeholder, value, onWrite, onType }: TextProps) {
  const [typedText, setTyped] = useState(value);
  const [shown, setShown] = useState(value);
  if (shown !== value) {
    setShown(value);
    setTyped(value);
  }
  const send = () => {
    if (typedText !== value) onWrite(typedText);
  };
  const type = (text: string) => {
    setTyped(text);
    onType?.(text);
  };
  const rows = typedText.split("\n").length;
  return rows > 1 ? (
    <textarea
      id={id}
      aria-label={label}
      rows={rows}
      value={typedText}
      onChange={(event) => type(event.target.value)}
      onBlur={send}
      spellCheck={false}
      className={`${INPUT} h-auto py-1`}
    />
  ) : (
    <input
      id={id}
      aria-label={label}
      placeholder={placeholder}
      value={typedText}
      onChange={(event) => type(event.target.value)}
      onBlur={send}
      onKeyDown={(event) => {
        if (event.key === "Enter") {
          event.preventDefault();
          send();
        }
      }}
      spellCheck={false}
      className={INPUT}
    />
  );
}

function Toggle({ id, on, onChange }: { id: string; on: boolean; onChange: (on: boolean) => void }) {
  return (
    <Switch.Root id={id} checked={on} onCheckedChange={onChange} className={SWITCH}>
      <Switch.Thumb className={THUMB} />
    </Switch.Root>
  );
}

/** Names with a text each. */
function Pairs({
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
  const [name, setName] = useState("");
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
      <div className="flex gap-2">
        <input
          id={id}
          placeholder="name"
          value={name}
          onChange={(event) => setName(event.target.value)}
          className={INPUT}
        />
        <button
          type="button"
          className="btn small"
          disabled={!/^\S+$/.test(name) || name in value}
          onClick={() => {
            writing.write([...path, name], "…");
            setName("");
          }}
        >
          Add
        </button>
      </div>
    </div>
  );
}

const Elsewhere = ({ writing, path, label }: { writing: Writing; path: Path; label: React.ReactNode }) => (
  <div className="flex items-baseline gap-2">
    {label}
    <button type="button" className="btn small quiet-btn" onClick={() => writing.look(path)}>
      In the text
    </button>
  </div>
);
