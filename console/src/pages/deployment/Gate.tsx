import { useQueryClient } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { Checklist, tickDeployment } from "../../design/Checklist";
import { Criteria } from "../../design/Criteria";

type View = Schemas["DeploymentView"];

/** What stands before it, and what people said. */
export function Gate({ view, mine }: { view: View; mine: boolean }) {
  const client = useQueryClient();
  if (view.gate.length === 0 && view.decisions.length === 0) return null;
  const id = view.deployment.id;
  return (
    <section aria-label="Gate">
      <Criteria criteria={view.gate} decisions={view.decisions} mine={mine} />
      <Checklist
        lists={view.checklists}
        mine={view.mayNotTick === undefined}
        onTick={async (said) => {
          await tickDeployment(id, said);
          await client.invalidateQueries();
        }}
      />
    </section>
  );
}
