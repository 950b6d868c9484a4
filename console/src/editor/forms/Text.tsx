import { Switch } from "radix-ui";
import { useId, useState } from "react";
import type { Value } from "../edits";

/** A text that is typed into. */
export const INPUT =
  "box-border h-8 w-full min-w-0 rounded-[4px] border border-solid border-line-strong bg-surface px-2 " +
  "font-mono text-[13px] text-ink";

export const plain = (value: unknown): string =>
  typeof value === "string" || typeof value === "number" || typeof value === "boolean" ? String(value) : "";

/** A number stays a number, and a text that looks like one a text. */
export const typed = (before: unknown, text: string): Value | undefined =>
  text === "" ? undefined : typeof before !== "string" && /^[0-9]{1,9}$/.test(text) ? Number(text) : text;

interface TextProps {
  id?: string;
  label?: string;
  placeholder?: string;
  /** What exists, to choose from as one types. */
  names?: string[];
  value: string;
  onWrite: (text: string) => void;
  /** Told at every key, before anything is written. */
  onType?: (text: string) => void;
}

/** Written when it is left, or at Enter. */
export function Text({ id, label, placeholder, names = [], value, onWrite, onType }: TextProps) {
  const list = useId();
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
    <>
      <input
        id={id}
        list={names.length > 0 ? list : undefined}
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
      {names.length > 0 && (
        <datalist id={list}>
          {names.map((name) => (
            <option key={name} value={name} />
          ))}
        </datalist>
      )}
    </>
  );
}

const SWITCH =
  "h-5 w-9 flex-none cursor-pointer rounded-full border border-line-strong bg-surface p-0 " +
  "data-[state=checked]:bg-primary";
const THUMB =
  "block size-3.5 translate-x-0.5 rounded-full bg-ink-3 data-[state=checked]:translate-x-[18px] " +
  "data-[state=checked]:bg-on-primary";

export function Toggle({ id, on, onChange }: { id: string; on: boolean; onChange: (on: boolean) => void }) {
  return (
    <Switch.Root id={id} checked={on} onCheckedChange={onChange} className={SWITCH}>
      <Switch.Thumb className={THUMB} />
    </Switch.Root>
  );
}
