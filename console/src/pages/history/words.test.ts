import { expect, it } from "vitest";
import { said } from "./words";

const base = { at: "2026-05-04T12:00:00Z", environment: "test", version: "1.4.1", host: "north-hut", emergency: false };

it.each([
  ["went-live", "1.4.1 went live"],
  ["live-again", "1.4.1 is live again"],
  ["ended", "1.4.1 undone"],
  ["held", "held"],
  ["let-go", "hold lifted"],
  ["closed", "closed"],
  ["opened", "opened again"],
  ["unhealthy", "north-hut is unhealthy"],
  ["drifted", "north-hut has other files than were installed"],
] as const)("says what happened: %s", (what, words) => {
  expect(said({ ...base, what, status: "undone" })).toBe(words);
});
