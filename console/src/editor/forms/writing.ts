import { useMemo, useState } from "react";
import type { Schema } from "../completion";
import { lineOf, move, NotByForm, open, set, type Opened, type Path, type Value } from "../edits";

/** What forms read, and how they write. */
export interface Writing {
  /** Whose runs conditions are tried over; empty: nobody's. */
  component: string;
  schema: Schema;
  opened: Opened;
  /** What exists for the value of a key, to choose from. */
  names: (key: string) => string[];
  /** Sets what stands at a path; undefined takes it away. */
  write: (path: Path, value: Value | undefined) => void;
  move: (parent: Path, from: number, to: number) => void;
  /** Shows the line of the text where something stands. */
  look: (path: Path) => void;
}

/** What a name was given to stays, though nothing is left in it: a stage, an environment, a place, a host. */
const NAMED = ["stages", "asks", "environments", "components", "hosts"];

const staying = (path: Path): number => {
  const last = path.slice(0, -2).findLastIndex((step) => NAMED.includes(String(step)));
  return last < 0 ? 0 : last + 2;
};

interface Text {
  component: string;
  text: string;
  /** What is changed, where what is shown is a moment behind. */
  newest?: () => string;
  schema: Schema;
  names?: (key: string) => string[];
  onChange: (text: string) => void;
  onLook: (line: number) => void;
}

const NONE = (): string[] => [];

/** Writes a text by forms, and says where it does not take a change. */
export function useWriting({ component, text, newest = () => text, schema, names = NONE, onChange, onLook }: Text) {
  const [refused, setRefused] = useState("");
  const opened = useMemo(() => open(text), [text]);
  const trying = (change: () => string) => {
    try {
      setRefused("");
      onChange(change());
    } catch (wrong) {
      if (!(wrong instanceof NotByForm)) throw wrong;
      setRefused(wrong.message);
    }
  };
  const writing: Writing = {
    component,
    schema,
    opened,
    names,
    write: (path, value) => trying(() => set(newest(), path, value, staying(path))),
    move: (parent, from, to) => trying(() => move(newest(), parent, from, to)),
    look: (path) => onLook(lineOf(text, path)),
  };
  return { writing, refused };
}
