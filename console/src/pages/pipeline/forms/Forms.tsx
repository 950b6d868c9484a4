import { Tabs } from "radix-ui";
import { useMemo, useState } from "react";
import { lineOf, move, NotByForm, open, set, type Opened } from "../../../editor/edits";
import type { Known, Schema } from "../../../editor/completion";
import { Asks } from "./Asks";
import type { Writing } from "./Fields";
import { Recipe } from "./Recipe";
import { Route } from "./Route";
import { Stages } from "./Stages";
import { Starts } from "./Starts";

interface FormsProps {
  component: string;
  text: string;
  schema: Schema;
  known: Known;
  onChange: (text: string) => void;
  onLook: (line: number) => void;
}

const TAB =
  "cursor-pointer border-0 border-b-2 border-solid border-transparent bg-transparent px-1 py-1 text-[13px] " +
  "text-ink-2 data-[state=active]:border-ink data-[state=active]:font-semibold data-[state=active]:text-ink";

/** The pipeline file as forms: they write the text beside them, and read it back. */
export function Forms({ component, text, schema, known, onChange, onLook }: FormsProps) {
  const [refused, setRefused] = useState("");
  const opened: Opened = useMemo(() => open(text), [text]);
  if (opened.why !== undefined) {
    return (
      <p role="status" className="text-ink-2">
        {opened.why}
      </p>
    );
  }
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
    write: (path, value) => trying(() => set(text, path, value)),
    move: (parent, from, to) => trying(() => move(text, parent, from, to)),
    look: (path) => onLook(lineOf(text, path)),
  };
  const parts: [string, React.ReactNode][] = [
    ["Stages", <Stages key="stages" writing={writing} known={known} />],
    ["Triggers", <Starts key="starts" writing={writing} known={known} />],
    ["Questions", <Asks key="asks" writing={writing} />],
    ["Deployment", <Recipe key="deployment" writing={writing} />],
    ["Route", <Route key="route" writing={writing} known={known} />],
  ];
  return (
    <Tabs.Root defaultValue="Stages">
      <Tabs.List aria-label="Parts of the file" className="mb-3 flex gap-3 border-b border-[var(--line)]">
        {parts.map(([part]) => (
          <Tabs.Trigger key={part} value={part} className={TAB}>
            {part}
          </Tabs.Trigger>
        ))}
      </Tabs.List>
      {refused && (
        <p role="alert" className="bad mt-0 text-[13px]">
          {refused}
        </p>
      )}
      {parts.map(([part, form]) => (
        <Tabs.Content key={part} value={part}>
          {form}
        </Tabs.Content>
      ))}
    </Tabs.Root>
  );
}
