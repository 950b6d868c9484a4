import { useQuery } from "@tanstack/react-query";
import { FilePen } from "lucide-react";
import { Tabs } from "radix-ui";
import { Link } from "react-router";
import { useMay } from "../../api/may";
import { type Schemas } from "../../api/client";
import { rulesHistory } from "../../api/environments";
import { At } from "../../design/time";
import { TABS } from "../../design/tabs";
import { SECTION_HEAD } from "../../design/classes";

const RULES_FILE =
  "max-h-105 overflow-auto text-[12px] leading-[17px] bg-ground p-3 rounded-[8px] [&_del]:text-bad " +
  "[&_del]:no-underline [&_ins]:text-good [&_ins]:no-underline";

const LINE = "relative pl-3.5 before:absolute before:top-2 before:left-0 before:h-0.5 before:w-1.5 before:bg-ink-3";
const RULES_PAST = "[&_li]:px-0 [&_li]:py-2 [&_li]:border-t [&_li]:border-t-line [&_li]:text-[13px]";

export function Gates({ rules }: { rules: Schemas["RulesView"] }) {
  const may = useMay();
  return (
    <Tabs.Root defaultValue="words" asChild>
      <section className="sheet pad" aria-label="Rules">
        <div className={SECTION_HEAD}>
          <h2>Rules</h2>
          <Tabs.List className={TABS} aria-label="How they are shown">
            <Tabs.Trigger value="words">In words</Tabs.Trigger>
            <Tabs.Trigger value="file">As a file</Tabs.Trigger>
            <Tabs.Trigger value="history">As they were</Tabs.Trigger>
          </Tabs.List>
          {may("EDIT_ENVIRONMENT", { environment: rules.environment }) && (
            <span className="ml-auto flex gap-2 self-center">
              <Link className="btn small" to={`/environments-file?environment=${rules.environment}`}>
                <FilePen size={14} />
                Edit
              </Link>
              <Link className="btn small" to={`/environments-file?copy=${rules.environment}`}>
                Copy
              </Link>
            </span>
          )}
        </div>
        <Tabs.Content value="words">
          <Words words={rules.words} />
        </Tabs.Content>
        <Tabs.Content value="file" className="grid grid-cols-[minmax(0,1fr)] gap-2 pt-3">
          <pre className={RULES_FILE} tabIndex={0}>
            {rules.text}
          </pre>
          <p className="quiet small-text">
            The same as <code>paseo environment export</code> prints of it.
          </p>
        </Tabs.Content>
        <Tabs.Content value="history">
          <Past name={rules.environment} />
        </Tabs.Content>
      </section>
    </Tabs.Root>
  );
}

function Words({ words }: { words: Schemas["WordsView"] }) {
  return (
    <>
      <Said head="To be promoted into it" lines={words.promotion} none="Anything may." />
      <Said head="To go on from it" lines={words.toGoOn} none="It stays live, and its tests pass." />
      <Said head="To be rolled back" lines={words.rollback} none="Whoever may roll back starts it at once." />
      <Said
        head="To ask less, to trust more branches or to give secrets"
        lines={words.toLoosen}
        none="It counts at once; what goes live within a day is reviewed."
      />
      {Object.entries(words.components).map(([component, own]) => (
        <Said key={component} head={`${component}, besides`} lines={[...own.toEnter, ...own.toGoOn]} none="" />
      ))}
    </>
  );
}

const Said = ({ head, lines, none }: { head: string; lines: string[]; none: string }) => (
  <>
    <h3>{head}</h3>
    {lines.length === 0 ? (
      <p className="quiet">{none}</p>
    ) : (
      <ul className="grid list-none gap-1.25 text-[13px] leading-[18px]">
        {lines.map((line) => (
          <li key={line} className={LINE}>
            {line}
          </li>
        ))}
      </ul>
    )}
  </>
);

function Past({ name }: { name: string }) {
  const history = useQuery(rulesHistory(name));
  const all = history.data ?? [];
  return (
    <ol className={RULES_PAST}>
      {all.map((each, at) => {
        const before = new Set(all[at + 1]?.text.split("\n") ?? []);
        const after = new Set(each.text.split("\n"));
        return (
          <li key={each.revision}>
            <b>Revision {each.revision}</b>{" "}
            <span className="quiet">
              by {each.by} <At time={each.at} />
            </span>
            {all[at + 1] && (
              <pre className={RULES_FILE}>
                {[...before]
                  .filter((line) => !after.has(line))
                  .map((line) => (
                    <del key={`-${line}`}>{`− ${line}\n`}</del>
                  ))}
                {[...after]
                  .filter((line) => !before.has(line))
                  .map((line) => (
                    <ins key={`+${line}`}>{`+ ${line}\n`}</ins>
                  ))}
              </pre>
            )}
          </li>
        );
      })}
    </ol>
  );
}
