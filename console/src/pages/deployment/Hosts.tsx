import { Collapsible } from "radix-ui";
import type { Schemas } from "../../api/client";
import { StateWord } from "../../design/Glyph";
import { hostState } from "../../design/states";
import { Log } from "../../log/Log";
import { ofTask } from "../../log/source";
import { RULE } from "../../design/classes";

const HOSTS =
  "[&_li]:grid [&_li]:grid-cols-[110px_1fr_auto] [&_li]:gap-2 [&_li]:text-[13px] [&_li]:leading-5.5 " +
  "[&_li_p]:col-span-full [&_li_p]:leading-4.25 [&_li_p]:pb-1";

const TASK =
  "border-t border-t-line [&_.log]:mx-0 [&_.log]:mt-0 [&_.log]:mb-2 [&_.log-scroll]:h-auto " +
  "[&_.log-scroll]:min-h-15 [&_.log-scroll]:max-h-75";
const TASK_HEAD = "flex justify-between w-full py-1.25 border-0 bg-transparent text-[13px] text-left";

type View = Schemas["DeploymentView"];

const WORD: Record<string, string> = {
  install: "Install",
  check: "Check",
  undo: "Undo",
  remove: "Remove",
  watch: "Watch",
  clear: "Clear",
  once_before: "Once before",
  once_after: "Once after",
  traffic: "Traffic, by the agent",
  traffic_back: "Traffic back, by the agent",
  whole: "Check of the whole",
  watch_whole: "Watch of the whole",
  test: "Test",
};

/** Host by host: how far it is and what it has; before it begins, what will happen. */
export function Hosts({ view }: { view: View }) {
  const waiting = view.deployment.startedAt === undefined;
  return (
    <section aria-label="Hosts">
      <h3 className={RULE}>Hosts</h3>
      <ul className={`hosts ${HOSTS}`}>
        {view.hosts.map((host) => (
          <li key={host.host}>
            <b>{host.host}</b>
            {waiting ? (
              <span>
                {host.phase === "away"
                  ? "left out"
                  : `install, then ${view.checks} ${view.checks === 1 ? "check" : "checks"}`}
              </span>
            ) : (
              <StateWord state={hostState(host.phase)} />
            )}
            <span className="quiet">
              {host.unknown ? (
                "nobody knows what it has"
              ) : host.live ? (
                <>
                  has <span className="v">{host.live}</span>
                </>
              ) : (
                "has nothing"
              )}
            </span>
            {host.reason && <p className={host.phase === "away" ? "quiet" : "bad"}>{host.reason}</p>}
          </li>
        ))}
      </ul>
      {waiting && (
        <p className="quiet small-text">
          {view.undoes
            ? `If a host fails, all go back to ${view.comparison.live ?? "what was there before"} by themselves.`
            : "If a host fails, it stops there and a person decides."}
        </p>
      )}
      {view.tasks.map((task) => (
        <Task key={task.work} id={view.deployment.id} task={task} />
      ))}
    </section>
  );
}

function Task({ id, task }: { id: number; task: Schemas["HostTaskView"] }) {
  return (
    <Collapsible.Root className={TASK}>
      <Collapsible.Trigger className={TASK_HEAD}>
        {WORD[task.kind] ?? task.kind} on {task.host}
        <span className="quiet">{task.status === "offered" ? "waits for its agent" : "log"}</span>
      </Collapsible.Trigger>
      <Collapsible.Content>
        <Log source={ofTask(id, task, `${WORD[task.kind] ?? task.kind} on ${task.host}`)} />
      </Collapsible.Content>
    </Collapsible.Root>
  );
}
