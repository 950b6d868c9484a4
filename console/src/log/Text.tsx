import Anser from "anser";
import { Fragment } from "react";

const ESCAPE = "\u001b";

/** Six tones of ours for the sixteen of a terminal; bright ones as the plain. */
const TONES: Record<string, string> = {
  red: "text-bad",
  green: "text-good",
  yellow: "text-warn",
  blue: "text-ice",
  cyan: "text-ice",
  magenta: "text-ink-2",
  black: "text-ink-3",
  white: "text-ink-3",
};

const toneOf = (colour: string | null) => TONES[colour?.replace(/^ansi-(bright-)?/, "") ?? ""] ?? "";

/** A line's text with ANSI colours, in tones of our own, and the searched words marked. */
export function Text({ text, wanted }: { text: string; wanted: string }) {
  if (!text.includes(ESCAPE)) return <Marked text={text} wanted={wanted} />;
  return Anser.ansiToJson(text, { use_classes: true, json: true, remove_empty: true }).map((part, at) => (
    <span key={at} className={`${toneOf(part.fg)} ${part.decorations.includes("bold") ? "font-[680]" : ""}`}>
      <Marked text={part.content} wanted={wanted} />
    </span>
  ));
}

function Marked({ text, wanted }: { text: string; wanted: string }) {
  if (wanted.length < 2) return text;
  const parts: string[] = [];
  let from = 0;
  const low = text.toLowerCase();
  for (let at = low.indexOf(wanted.toLowerCase()); at >= 0; at = low.indexOf(wanted.toLowerCase(), from)) {
    parts.push(text.slice(from, at), text.slice(at, at + wanted.length));
    from = at + wanted.length;
  }
  parts.push(text.slice(from));
  return parts.map((part, at) => (at % 2 === 1 ? <mark key={at}>{part}</mark> : <Fragment key={at}>{part}</Fragment>));
}
