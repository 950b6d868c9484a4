import type { ReactNode } from "react";
import { NODE } from "./graph";

interface Props {
  name: string;
  /** The state in words, or what there is to know; a glyph stands before it. */
  words: ReactNode;
  glyph?: ReactNode;
  /** How the way goes along it. */
  path: "walked" | "moving" | "ahead";
  /** `laid` is where somebody walked, `open` is still to come or was left out. */
  ground: "laid" | "open";
  tone?: "warned" | "failed";
  x: number;
  y: number;
  title?: string;
  selected?: boolean;
  onSelect?: () => void;
}

/** A stage, or a component, as a paving slab: its word above, its state below, and the way along its lower edge. */
export function Slab({ name, words, glyph, path, ground, tone, x, y, title, selected, onSelect }: Props) {
  const inside = (
    <>
      <b>{name}</b>
      <i>
        {glyph}
        <span>{words}</span>
      </i>
      <span className={`path ${path}`} />
    </>
  );
  const className = `stage ${ground} ${tone ?? ""} ${selected ? "selected" : ""}`;
  const style = { left: x, top: y, width: NODE.width, height: NODE.height };
  return onSelect ? (
    <button
      type="button"
      aria-pressed={selected ?? false}
      className={className}
      style={style}
      title={title}
      onClick={onSelect}
    >
      {inside}
    </button>
  ) : (
    <div className={className} style={style} title={title}>
      {inside}
    </div>
  );
}
