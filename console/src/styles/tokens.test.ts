import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";

/** WCAG 2 contrast of the pairs that text is set in, in both themes. */
const css = readFileSync("src/styles/tokens.css", "utf8");
const theme = (selector: string) => {
  const block = css.slice(css.indexOf(selector)).split("}")[0] ?? "";
  return Object.fromEntries(
    [...block.matchAll(/--([\w-]+):\s*(#[0-9A-Fa-f]{6})/g)].map((found) => [found[1], found[2]]),
  );
};
const channel = (value: number) => (value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4);
const luminance = (hex: string) => {
  const [r = 0, g = 0, b = 0] = [1, 3, 5].map((at) => channel(parseInt(hex.slice(at, at + 2), 16) / 255));
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
};
const contrast = (a: string, b: string) => {
  const [high = 0, low = 0] = [luminance(a), luminance(b)].sort((x, y) => y - x);
  return (high + 0.05) / (low + 0.05);
};

const TEXT = ["ink", "ink-2", "ink-3", "good", "warn", "bad", "ice", "need"];
const GROUNDS = ["ground", "surface", "raised", "sunken", "beyond", "log"];
const PAIRS = [
  ["on-need", "need"],
  ["on-primary", "primary"],
  ["on-groundline", "groundline"],
  ["on-groundline-2", "groundline"],
  ["on-mark", "mark"],
  ["need", "need-soft"],
  ["good", "good-soft"],
  ["warn", "warn-soft"],
  ["bad", "bad-soft"],
  ["ink-3", "slab"],
];

describe.each([
  ["light", ":root,[data-theme=light]"],
  ["dark", "[data-theme=dark]"],
])("%s theme", (_, selector) => {
  const tokens = theme(selector);
  it.each([...TEXT.flatMap((text) => GROUNDS.map((ground) => [text, ground])), ...PAIRS])(
    "%s can be read on %s",
    (text, ground) => {
      expect(contrast(tokens[text ?? ""] ?? "", tokens[ground ?? ""] ?? "")).toBeGreaterThanOrEqual(4.5);
    },
  );
});
