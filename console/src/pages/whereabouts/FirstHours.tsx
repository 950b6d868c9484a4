import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { useMay } from "../../api/may";
import { accounts, agents } from "../../api/queries";
import { Walk, type Stop } from "../../design/Walk";
import { stepsOf } from "./first";

/** A walk with four empty stops: each is made where it leads to, and fills as it happens. */
export function FirstHours({ environments, components }: { environments: number; components: number }) {
  const may = useMay();
  const known = useQuery(agents());
  const manages = may("MANAGE_ACCOUNTS");
  const people = useQuery({ ...accounts(), enabled: manages });
  const steps = stepsOf({
    agents: known.data?.length ?? 0,
    environments,
    components,
    accounts: manages ? (people.data?.length ?? 0) : undefined,
  });
  const next = steps.findIndex((step) => !step.done);
  const stops: Stop[] = steps.map((step, at) => ({
    key: step.name,
    name: step.name,
    state: step.done ? "live" : "ahead",
    path: at === steps.length - 1 ? "none" : step.done && steps[at + 1]?.done ? "walked" : "ahead",
    below: (
      <>
        {step.sentence}
        <br />
        {step.done ? (
          "there"
        ) : (
          <Link className={`btn small mt-2 ${at === next ? "primary" : ""}`} to={step.to}>
            {step.act}
          </Link>
        )}
      </>
    ),
    sentence: `${step.name}: ${step.done ? "there" : "not yet"}`,
  }));
  if (next < 0 || known.isPending) return null;
  return (
    <section aria-label="First hours" className="mb-6">
      <h2>{components === 0 ? "Nothing walks here yet" : "What is still to do"}</h2>
      <p className="text-ink-2">Four things, in whatever order; each is ticked here as it happens.</p>
      <div className="hero">
        <Walk stops={stops} label="What is there, and what is still to do" />
      </div>
    </section>
  );
}
