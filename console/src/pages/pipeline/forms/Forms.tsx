import { Tabs } from "radix-ui";
import { memo } from "react";
import { namesFor, type Known, type Schema } from "../../../editor/completion";
import { keysAt, open } from "../../../editor/edits";
import { Asks } from "./Asks";
import { useWriting } from "../../../editor/forms/writing";
import { PART_TAB } from "../../../design/tabs";
import { Pieces } from "./Pieces";
import { Recipe } from "./Recipe";
import { Route } from "./Route";
import { Stages } from "./Stages";
import { Starts } from "./Starts";

interface FormsProps {
  component: string;
  /** The text that is shown, and the one that is changed: the same, but for the moment in which it is read. */
  text: string;
  newest: () => string;
  schema: Schema;
  known: Known;
  onChange: (text: string) => void;
  onLook: (line: number) => void;
}

/** The pipeline file as forms: they write the text beside them, and read it back. */
export const Forms = memo(function Forms({ component, text, newest, schema, known, onChange, onLook }: FormsProps) {
  const stages = keysAt(open(text), ["stages"]).filter((name) => name !== "like");
  const names = (key: string) => namesFor(key, known, stages);
  const { writing, refused } = useWriting({ component, text, newest, schema, names, onChange, onLook });
  if (writing.opened.why !== undefined) {
    return (
      <p role="status" className="text-ink-2">
        {writing.opened.why}
      </p>
    );
  }
  const parts: [string, React.ReactNode][] = [
    ["Stages", <Stages key="stages" writing={writing} known={known} />],
    ["Triggers", <Starts key="starts" writing={writing} known={known} />],
    ["Questions", <Asks key="asks" writing={writing} />],
    ["Deployment", <Recipe key="deployment" writing={writing} />],
    ["Route", <Route key="route" writing={writing} known={known} />],
    ["Pieces", <Pieces key="pieces" writing={writing} known={known} />],
  ];
  return (
    <Tabs.Root defaultValue="Stages">
      <Tabs.List aria-label="Parts of the file" className="mb-3 flex gap-3 border-b border-line">
        {parts.map(([part]) => (
          <Tabs.Trigger key={part} value={part} className={PART_TAB}>
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
});
