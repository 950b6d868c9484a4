import { useId, useState } from "react";
import { valueAt, type Path } from "../edits";
import type { Schema } from "../completion";
import { Condition } from "./Condition";
import { Items } from "./Items";
import { Named, Pairs } from "./Named";
import { plain, Text, Toggle, typed } from "./Text";
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
            <Text
              id={id}
              names={writing.names(name)}
              value={plain(value)}
              onWrite={(text) => writing.write(path, typed(value, text))}
            />
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

export const ofSchema = (node: Schema): [string, Schema][] => Object.entries(node.properties ?? {});

const Group = ({ label, ...fields }: FieldsProps & { label: React.ReactNode }) => (
  <fieldset className="m-0 grid min-w-0 gap-2 border-0 border-l-2 border-solid border-line p-0 pl-3">
    <legend className="p-0">{label}</legend>
    <Fields {...fields} />
  </fieldset>
);

const Elsewhere = ({ writing, path, label }: { writing: Writing; path: Path; label: React.ReactNode }) => (
  <div className="flex items-baseline gap-2">
    {label}
    <button type="button" className="btn small quiet-btn" onClick={() => writing.look(path)}>
      In the text
    </button>
  </div>
);
