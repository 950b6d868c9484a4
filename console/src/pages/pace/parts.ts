import type { Schemas } from "../../api/client";
import { lasting } from "../../design/time";

export type Part = Schemas["PartOfPaceView"]["part"];
type Environment = Schemas["EnvironmentPaceView"];

/** Where the time goes, in the order in which it goes, in words and in the console's colours. */
export const PARTS: { part: Part; word: string; colour: string }[] = [
  { part: "committed", word: "committed, not yet asked to be built", colour: "var(--line)" },
  { part: "turn", word: "waiting for its turn to be built", colour: "var(--warn)" },
  { part: "agents", word: "waiting for agents", colour: "var(--line-strong)" },
  { part: "building", word: "building", colour: "var(--good)" },
  { part: "before", word: "in the environments before", colour: "var(--slab-edge)" },
  { part: "people", word: "waiting for people", colour: "var(--need)" },
  { part: "closed", word: "waiting while it was closed", colour: "var(--bad)" },
  { part: "held", word: "held", colour: "var(--ink-3)" },
  { part: "queue", word: "waiting for another deployment", colour: "var(--ink-2)" },
  { part: "time", word: "waiting until live long enough", colour: "var(--ice)" },
  { part: "deploying", word: "deploying", colour: "var(--ink)" },
];

/** A length in seconds, with a digit behind the point where it is short; of none a dash. */
export const length = (seconds: number | undefined) =>
  seconds === undefined ? "–" : seconds < 10 ? `${Number(seconds.toFixed(1))} s` : lasting(Math.round(seconds));

/** Between marks of an axis of time, in seconds: what people count in. */
const STEPS = [1, 2, 5, 10, 15, 30, 60, 120, 300, 600, 900, 1800, 3600, 7200, 10800, 21600, 43200, 86400];

/** The marks of an axis from 0 up to at least so many seconds: at most six, or of whole days as many as five. */
export function marks(most: number): number[] {
  const step = STEPS.find((each) => each * 5 >= most) ?? Math.ceil(most / 5 / 86400) * 86400;
  return Array.from({ length: Math.max(1, Math.ceil(most / step)) + 1 }, (_, at) => at * step);
}

export const percent = (share: number) => `${Math.round(share)} %`;

export const wordOf = (part: Part) => PARTS.find((each) => each.part === part)?.word ?? part;

/** What one promotion spent in each part, on average, in hours: what a bar of an environment is made of. */
export const barOf = ({ environment, live, parts }: Environment) => ({
  environment,
  ...Object.fromEntries(parts.map(({ part, seconds }) => [part, live === 0 ? 0 : seconds / live / 3600])),
});

/** The part in which most of the time went, with its share in percent; none where there was no time. */
export function mostOf(parts: { part: Part; seconds: number }[]): { part: Part; percent: number } | undefined {
  const all = parts.reduce((sum, each) => sum + each.seconds, 0);
  const most = parts.toSorted((one, other) => other.seconds - one.seconds)[0];
  return most && all > 0 ? { part: most.part, percent: Math.round((100 * most.seconds) / all) } : undefined;
}
