/** What an empty service still lacks, in the order in which it is made. */
export interface Step {
  name: "agent" | "environment" | "component" | "colleague";
  done: boolean;
  /** What it is for. */
  sentence: string;
  /** Where it is made, and in which words. */
  to: string;
  act: string;
}

/** The four things to do; a colleague is told of only to whoever may add one. */
export function stepsOf(there: {
  agents: number;
  environments: number;
  components: number;
  /** Absent: the reader may not know. */
  accounts: number | undefined;
}): Step[] {
  const steps: Step[] = [
    {
      name: "agent",
      done: there.agents > 0,
      sentence: "runs what is built and deployed",
      to: "/settings/agents",
      act: "Enrol an agent",
    },
    {
      name: "environment",
      done: there.environments > 0,
      sentence: "a stop of the walk, with its gate",
      to: "/environments-file",
      act: "Write the first one",
    },
    {
      name: "component",
      done: there.components > 0,
      sentence: "what is built, kept and promoted",
      to: "/bring-in",
      act: "Bring in a component",
    },
  ];
  if (there.accounts !== undefined)
    steps.push({
      name: "colleague",
      done: there.accounts > 1,
      sentence: "who says yes to what you ask for",
      to: "/settings/accounts",
      act: "Add an account",
    });
  return steps;
}
