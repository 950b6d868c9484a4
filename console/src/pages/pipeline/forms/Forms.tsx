import { Tabs } from "radix-ui";
import type { Known, Schema } from "../../../editor/completion";
import { Asks } from "./Asks";
import { useWriting } from "../../../editor/forms/writing";
import { PART_TAB } from "../../../design/tabs";
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

/** The pipeline file as forms: they write the text beside them, and read it back. */
export function Forms({ component, text, schema, known, onChange, onLook }: FormsProps) {
  const { writing, refused } = useWriting({ component, text, schema, onChange, onLook });
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
  ];
  return (
    <Tabs.Root defaultValue="Stages">
      <Tabs.List aria-label="Parts of the file" className="mb-3 flex gap-3 border-b border-[var(--line)]">
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
}
