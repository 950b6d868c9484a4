import { useQuery } from "@tanstack/react-query";
import { Radio } from "lucide-react";
import { useMemo } from "react";
import { agents, whereabouts } from "../api/queries";
import { doingIn, told } from "./ground";
import { clockOf, useNow } from "./time";
import { OWN, useZoneOfPage } from "./zone";

const GROUNDLINE =
  "fixed left-0 right-0 bottom-0 h-[var(--groundline-h)] flex items-center gap-6.5 py-0 px-[var(--gutter)] " +
  "[background:var(--groundline)] [color:var(--on-groundline-2)] text-[12px] z-9 " +
  "[box-shadow:inset_0_1px_0_var(--groundline-edge)] whitespace-nowrap overflow-hidden " +
  "[&_b]:[color:var(--on-groundline)] [&_b]:font-semibold [&_b]:mr-1.5";

function Clock() {
  const now = useNow();
  const zone = useZoneOfPage() ?? OWN;
  return (
    <span
      className="text-[13px] font-[640] text-[var(--on-groundline)]"
      title={`Times on this page are those of ${zone}`}
    >
      {clockOf(now.toISOString(), zone)}
      <i className="ml-1.5 font-normal text-[var(--on-groundline-2)] not-italic">
        {zone.split("/").pop()?.replaceAll("_", " ")}
      </i>
    </span>
  );
}

/** Time, what each environment is doing now, agents, and whether the page is live. */
export function GroundLine({ connected, upgraded }: { connected: boolean; upgraded: boolean }) {
  const where = useQuery(whereabouts()).data;
  const known = useQuery(agents());
  const present = known.data?.filter((agent) => agent.present).length ?? 0;
  const doing = useMemo(() => (where ? told(doingIn(where)) : []), [where]);
  return (
    <footer className={`groundline ${GROUNDLINE} print:hidden`}>
      <Clock />
      <span className="flex min-w-0 grow gap-[26px] overflow-hidden">
        {doing.map(([name, words]) => (
          <span key={name} className="max-[900px]:hidden">
            <b>{name}</b>
            {words}
          </span>
        ))}
      </span>
      <span className="max-[900px]:hidden">
        {known.data ? `${present} of ${known.data.length} agents present` : ""}
      </span>
      <span className="groundline-live inline-flex items-center gap-1.5" role="status">
        {upgraded && (
          <button type="button" className="btn small" onClick={() => location.reload()}>
            The service was upgraded; load this page anew
          </button>
        )}
        <Radio size={14} />
        {connected ? "live" : "connection lost; what you see may be old"}
      </span>
    </footer>
  );
}
