import type { ReactNode } from "react";
import { NODE } from "./graph";

const STAGE =
  "absolute pt-1.75 px-3 pb-0 overflow-hidden border border-slab-edge rounded-[4px] bg-slab text-left " +
  "[box-shadow:0_10px_14px_-10px_var(--kerb-shade)] [--gbg:var(--slab)] [&_b]:block [&_b]:whitespace-nowrap " +
  "[&_b]:overflow-hidden [&_b]:text-ellipsis [&_i_span]:block [&_i_span]:whitespace-nowrap " +
  "[&_i_span]:overflow-hidden [&_i_span]:text-ellipsis [&_b]:text-[13px] [&_b]:leading-4.25 [&_i]:flex " +
  "[&_i]:items-center [&_i]:gap-1.5 [&_i]:min-h-4.25 [&_i]:not-italic [&_i]:text-[12px] [&_i]:leading-4.25 " +
  "[&_i]:text-ink-2 [&_i_svg]:flex-none [&_i_span]:min-w-0 [&>.path]:absolute [&>.path]:left-0 " +
  "[&>.path]:right-0 [&>.path]:bottom-0 [&>.path]:rounded-none after:content-[''] after:absolute after:left-0 " +
  "after:right-0 after:bottom-0 after:h-1 after:bg-slab-edge after:z-0 [&>.path]:z-1 [&.open]:bg-transparent " +
  "[&.open]:border [&.open]:border-stone [&.open]:border-dashed [&.open]:border-b-0 [&.open]:shadow-none " +
  "[&.open]:[--gbg:var(--ground)] [&.open_b]:text-ink-2 [&.open_b]:font-[560] [&.open::after]:bg-transparent " +
  "[&.failed]:border-bad [&.warned]:border-warn [&.selected]:border-ink! " +
  "[&.selected]:[box-shadow:inset_0_0_0_1px_var(--ink)]";

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
  const className = `stage ${STAGE} ${ground} ${tone ?? ""} ${selected ? "selected" : ""}`;
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
