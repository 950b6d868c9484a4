import type { Schemas } from "../../api/client";

type Comparison = Schemas["ComparisonView"];

/** One line of what would change, and what it opens to. */
export interface Line {
  sentence: string;
  warn?: boolean;
  details: string[];
}

const count = (number: number, one: string, several: string) => `${number} ${number === 1 ? one : several}`;

/** What would change, a line each, what is lost first. */
export function linesOf(comparison: Comparison): Line[] {
  const { commits, commitCount, lost, evidence, variables, secrets, recipe, files, pieces } = comparison;
  const lines: Line[] = [];
  if (lost.length > 0) {
    lines.push({
      sentence:
        `${count(lost.length, "commit is", "commits are")} live there that ${comparison.proposed} lacks: ` +
        "a fix may be lost",
      warn: true,
      details: lost.map((each) => `${each.id.slice(0, 7)} ${each.summary}, ${each.author}`),
    });
  }
  const authors = [...new Set(commits.map((each) => each.author))];
  const who = authors.slice(0, 3).join(", ") + (authors.length > 3 ? " and others" : "");
  lines.push({
    sentence: commitCount === 0 ? "no commit differs" : `${count(commitCount, "commit", "commits")} by ${who}`,
    details: commits.map((each) => `${each.id.slice(0, 7)} ${each.summary}, ${each.author}`),
  });
  const worse = evidence.filter((each) => each.better === false);
  lines.push({
    sentence:
      evidence.length === 0
        ? "no evidence to compare"
        : worse.length === 0
          ? "no evidence is worse"
          : `worse than what is live: ${worse.map((each) => each.name).join(", ")}`,
    warn: worse.length > 0,
    details: evidence.map((each) => `${each.name}: ${each.live ?? "none"} → ${each.proposed ?? "none"}`),
  });
  const settings = [
    ...variables.map((each) => `${each.name}: ${each.live ?? "not set"} → ${each.proposed ?? "not set"}`),
    ...secrets.map((each) => `the secret ${each.name}`),
  ];
  lines.push({
    sentence:
      settings.length === 0
        ? "variables and secrets are the same"
        : `other: ${[...variables, ...secrets].map((each) => each.name).join(", ")}`,
    details: settings,
  });
  const deployed = [...recipe, ...files, ...pieces];
  if (deployed.length > 0) {
    lines.push({
      sentence:
        `it is deployed otherwise: ${count(deployed.length, "difference", "differences")} in the recipe ` +
        "and what it uses",
      details: deployed.map((each) => `${each.what}: ${each.live ?? "none"} → ${each.proposed ?? "none"}`),
    });
  }
  return lines;
}

/** What the button says that it does, from what the gate says now. */
export function actOf(gate: Schemas["CriterionView"][], environment: string): string {
  if (gate.some((each) => each.state === "asked")) return `Ask for ${environment}`;
  return gate.every((each) => each.state === "met") ? `Deploy to ${environment} now` : `Request it for ${environment}`;
}

/** What follows from it, in a sentence. */
export function followsOf(gate: Schemas["CriterionView"][], environment: string, onward: string[]): string {
  const far =
    onward.length > 0
      ? `From ${environment} it goes on by itself to ${onward.join(", then ")}.`
      : `It stops in ${environment}.`;
  if (gate.some((each) => each.state === "asked")) return `People are asked before anything is done. ${far}`;
  return gate.every((each) => each.state === "met")
    ? `Nothing stands in between: it begins at once. ${far}`
    : `It waits, and begins by itself once its gate is open. ${far}`;
}

/** What is to be promoted, as an address says it: component, version and environment. */
export function promotionOf(
  param: string | null,
): { component: string; version: string; environment: string } | undefined {
  const [component, version, environment, more] = param?.split(":") ?? [];
  return component && version && environment && more === undefined ? { component, version, environment } : undefined;
}
