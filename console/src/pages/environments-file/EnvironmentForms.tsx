import { Tabs } from "radix-ui";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { nodesAt, type Schema } from "../../editor/completion";
import { keysAt, valueAt } from "../../editor/edits";
import { conditionsOf, FactsTried } from "./FactsTried";
import { PART_TAB } from "../../design/tabs";
import { Fields } from "../../editor/forms/Fields";
import { useWriting } from "../../editor/forms/writing";

interface FormsProps {
  text: string;
  schema: Schema;
  /** What each gate asks, in words. */
  said: Schemas["GateInWords"][];
  /** The environment that is shown at first. */
  environment: string | undefined;
  onChange: (text: string) => void;
  onLook: (line: number) => void;
}

const GATES: [string, string][] = [
  ["to-enter", "Before it"],
  ["to-go-on", "Onward"],
  ["rollback", "Rollback"],
];

/** An environment's rules and places as forms, each gate with the sentences that it makes. */
export function EnvironmentForms({ text, schema, said, environment, onChange, onLook }: FormsProps) {
  const { writing, refused } = useWriting({ component: "", text, schema, onChange, onLook });
  const names = keysAt(writing.opened, ["environments"]);
  const [chosen, setChosen] = useState(environment);
  const name = chosen !== undefined && names.includes(chosen) ? chosen : (names[0] ?? "");
  if (writing.opened.why !== undefined) {
    return (
      <p role="status" className="text-ink-2">
        {writing.opened.why}
      </p>
    );
  }
  const at = ["environments", name];
  const properties = (path: string[]) =>
    Object.entries(nodesAt(schema, path).find((node) => node.properties)?.properties ?? {});
  const gateKeys = GATES.map(([key]) => key);
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-3">
      <label className="flex items-center gap-2 text-[13px] text-ink-2">
        Environment
        <select
          value={name}
          onChange={(event) => {
            setChosen(event.target.value);
            writing.look(["environments", event.target.value]);
          }}
        >
          {names.map((each) => (
            <option key={each}>{each}</option>
          ))}
        </select>
      </label>
      {refused && (
        <p role="alert" className="bad m-0 text-[13px]">
          {refused}
        </p>
      )}
      <Tabs.Root key={name} defaultValue="to-enter">
        <Tabs.List aria-label={`Parts of ${name}`} className="mb-3 flex gap-3 border-b border-line">
          {GATES.map(([key, words]) => (
            <Tabs.Trigger key={key} value={key} className={PART_TAB}>
              {words}
            </Tabs.Trigger>
          ))}
          <Tabs.Trigger value="places" className={PART_TAB}>
            Places
          </Tabs.Trigger>
          <Tabs.Trigger value="rest" className={PART_TAB}>
            All else
          </Tabs.Trigger>
        </Tabs.List>
        {GATES.map(([key]) => (
          <Tabs.Content key={key} value={key} className="grid grid-cols-[minmax(0,1fr)] gap-3">
            <Sentences said={said.filter((each) => each.environment === name && each.gate === key)} />
            <FactsTried environment={name} conditions={conditionsOf(valueAt(writing.opened, [...at, key, "facts"]))} />
            <Fields writing={writing} path={[...at, key]} properties={properties([...at, key])} />
          </Tabs.Content>
        ))}
        <Tabs.Content value="places">
          <Fields writing={writing} path={at} properties={properties(at).filter(([key]) => key === "components")} />
        </Tabs.Content>
        <Tabs.Content value="rest">
          <Fields writing={writing} path={at} properties={properties(at)} without={[...gateKeys, "components"]} />
        </Tabs.Content>
      </Tabs.Root>
    </div>
  );
}

const Sentences = ({ said }: { said: Schemas["GateInWords"][] }) => (
  <ul className="m-0 list-none border-0 border-l-2 border-solid border-ink p-0 pl-3 text-[14px]">
    {said.length === 0 && <li className="text-ink-2">Nothing is asked.</li>}
    {said.flatMap((each) =>
      each.sentences.map((sentence) => (
        <li key={`${each.component ?? ""} ${sentence}`}>
          {each.component && <b>{each.component}: </b>}
          {sentence}
        </li>
      )),
    )}
  </ul>
);
