import { cloneElement, useId, useState, type ReactElement } from "react";
import { line, Problem } from "../api/client";

/** Does something, and keeps what was said where it was refused. What is typed stays. */
export function useTrying() {
  const [refused, setRefused] = useState<Error>();
  const [busy, setBusy] = useState(false);
  const trying = async (what: () => Promise<void>) => {
    setRefused(undefined);
    setBusy(true);
    try {
      await what();
    } catch (error) {
      setRefused(error instanceof Error ? error : new Error(String(error)));
    } finally {
      setBusy(false);
    }
  };
  return { trying, busy, refused };
}

const isOf = (pointer: string, at: string) => pointer === at || pointer.startsWith(`${at}/`);
const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);

/** What is wrong with one field, without its name. */
export function wrongAt(refused: Error | undefined, at: string): string | undefined {
  const field = refused instanceof Problem ? refused.fields.find((each) => isOf(each.pointer, at)) : undefined;
  if (!field) return undefined;
  const name = field.pointer.slice(1).replaceAll("/", ".");
  return capital(field.detail.startsWith(`${name} `) ? field.detail.slice(name.length + 1) : field.detail);
}

interface FieldProps {
  label: string;
  /** The JSON pointer of what it becomes. */
  at: string;
  refused: Error | undefined;
  className?: string;
  children: ReactElement<{ "aria-invalid"?: boolean; "aria-describedby"?: string }>;
}

/** A control with its name, and with what is wrong with it. */
export function Field({ label, at, refused, className, children }: FieldProps) {
  const id = useId();
  const wrong = wrongAt(refused, at);
  return (
    <label className={className}>
      {label}
      {wrong ? cloneElement(children, { "aria-invalid": true, "aria-describedby": id }) : children}
      {wrong && (
        <span id={id} className="field-error" role="alert">
          {wrong}
        </span>
      )}
    </label>
  );
}

/** What was refused and stands beside none of these fields. */
export const restOf = (refused: Error | undefined, fields: string[]): string => {
  if (!(refused instanceof Problem) || refused.fields.length === 0) return refused?.message ?? "";
  return refused.fields
    .filter((each) => !fields.some((at) => isOf(each.pointer, at)))
    .map(line)
    .join("\n");
};

export function Refused({ refused, beside = [] }: { refused: Error | undefined; beside?: string[] }) {
  const words = restOf(refused, beside);
  return words ? (
    <p className="bad" role="alert">
      {words}
    </p>
  ) : null;
}

interface TextFieldProps {
  label: string;
  about?: string;
  at: string;
  refused: Error | undefined;
  value: string;
  onType: (value: string) => void;
  secret?: boolean;
  rows?: number;
  names?: string[];
}

/** A text that is asked in a dialog, with what is wrong with it below. */
export function TextField({ label, about, at, refused, value, onType, secret, rows, names }: TextFieldProps) {
  const wrong = wrongAt(refused, at);
  const common = { className: "input", value, "aria-invalid": wrong ? true : undefined, spellCheck: false };
  const list = names && `names${at.replaceAll("/", "-")}`;
  return (
    <label>
      <b>{label}</b> {about && <span className="quiet">{about}</span>}
      {rows ? (
        <textarea {...common} rows={rows} onChange={(event) => onType(event.target.value)} />
      ) : (
        <input
          {...common}
          type={secret ? "password" : "text"}
          autoComplete={secret ? "new-password" : "off"}
          list={list}
          onChange={(event) => onType(event.target.value)}
        />
      )}
      {names && (
        <datalist id={list}>
          {names.map((name) => (
            <option key={name} value={name} />
          ))}
        </datalist>
      )}
      {wrong && (
        <span className="field-error" role="alert">
          {wrong}
        </span>
      )}
    </label>
  );
}
