import type { ReactNode } from "react";
import type { Shape, State, Tone } from "./states";

const SPIN = "[transform-origin:8px_8px] [animation:spin_1.6s_linear_infinite]";

const GROUND = "var(--gbg, var(--surface))";
const check = <path d="M4.9 8.2l2.2 2.2 4-4.6" stroke={GROUND} strokeWidth={1.8} />;
const bar = (
  <>
    <path d="M8 2.2v11.6" strokeWidth={2} />
    <circle cx={8} cy={1.9} r={1.7} fill="currentColor" stroke="none" />
    <circle cx={8} cy={14.1} r={1.7} fill="currentColor" stroke="none" />
  </>
);
const post = (
  <>
    <path d="M13 2.2v11.6" strokeWidth={2} />
    <circle cx={13} cy={1.9} r={1.9} fill="currentColor" stroke="none" />
    <circle cx={13} cy={14.1} r={1.9} fill="currentColor" stroke="none" />
  </>
);
const square = <rect x={1.6} y={1.6} width={12.8} height={12.8} rx={3} />;
const solid = <rect x={1.4} y={1.4} width={13.2} height={13.2} rx={3} fill="currentColor" stroke="none" />;
const back = <path d="M5.6 2.4L2.2 5.6l3.4 3.2M2.6 5.6h7.2a3.9 3.9 0 0 1 0 7.9H6" />;
const dot = (cx: number, cy: number, r: number) => <circle cx={cx} cy={cy} r={r} fill="currentColor" stroke="none" />;

const SHAPES: Record<Shape, ReactNode> = {
  "waiting-stage": <circle cx={8} cy={8} r={6} strokeDasharray="1.4 2.37" />,
  ready: (
    <>
      <circle cx={8} cy={8} r={6} />
      {dot(8, 8, 1.7)}
    </>
  ),
  running: (
    <>
      <circle cx={8} cy={8} r={6.2} opacity={0.28} />
      <path className={SPIN} d="M8 1.8A6.2 6.2 0 0 1 14.2 8" />
      <path d="M6.6 5.5L10.6 8l-4 2.5z" fill="currentColor" stroke="none" />
    </>
  ),
  passed: (
    <>
      {dot(8, 8, 7)}
      {check}
    </>
  ),
  warned: (
    <>
      <path d="M8 1.2L15.4 14.4H.6z" fill="currentColor" strokeWidth={1} />
      <path d="M8 5.6v4.2M8 12v.1" stroke={GROUND} strokeWidth={1.8} />
    </>
  ),
  failed: (
    <>
      <path d="M8 .9L15.1 8 8 15.1.9 8z" fill="currentColor" stroke="none" />
      <path d="M5.9 5.9l4.2 4.2M10.1 5.9l-4.2 4.2" stroke={GROUND} />
    </>
  ),
  skipped: (
    <>
      <path d="M2 11C3.6 3.6 11.2 3.2 13.2 9.6" />
      <path d="M13.9 6.2l-.5 3.9-3.6-1.3" />
      {dot(8, 12, 1.6)}
    </>
  ),
  cancelled: (
    <>
      <circle cx={8} cy={8} r={6.2} />
      <rect x={5.6} y={5.6} width={4.8} height={4.8} rx={0.8} fill="currentColor" stroke="none" />
    </>
  ),
  waiting: (
    <>
      {bar}
      {dot(8, 8, 3.4)}
    </>
  ),
  queued: (
    <>
      {post}
      {dot(8.6, 8, 1.5)}
      {dot(4.8, 8, 1.3)}
      {dot(1.4, 8, 1.1)}
    </>
  ),
  rejected: (
    <>
      {bar}
      <path d="M5.1 5.1l5.8 5.8M10.9 5.1l-5.8 5.8" stroke={GROUND} strokeWidth={4.6} />
      <path d="M5 5l6 6M11 5l-6 6" strokeWidth={2} />
    </>
  ),
  expired: (
    <>
      {bar}
      <circle cx={8} cy={8} r={4.2} fill={GROUND} />
      <path d="M8 5.9V8l1.5 1.1" strokeWidth={1.4} />
    </>
  ),
  hold: (
    <>
      <circle cx={8} cy={8} r={6.2} />
      <path d="M6.2 5.2v5.6M9.8 5.2v5.6" strokeWidth={2} />
    </>
  ),
  closed: (
    <>
      <path d="M5 1.6h6L14.4 8 11 14.4H5L1.6 8z" fill="currentColor" stroke="none" />
      <path d="M6.3 5v6M9.7 5v6" stroke={GROUND} strokeWidth={1.8} />
    </>
  ),
  withdrawn: (
    <>
      {post}
      <path d="M10 8H2M4.9 4.9L1.8 8l3.1 3.1" />
    </>
  ),
  overtaken: (
    <>
      <path d="M7 3.4L11.6 8 7 12.6M10.4 3.4L15 8l-4.6 4.6" />
      {dot(3, 8, 2)}
    </>
  ),
  deploying: (
    <>
      <circle cx={10} cy={8} r={5.1} />
      <path d="M10 2.9a5.1 5.1 0 0 0 0 10.2z" fill="currentColor" stroke="none" />
      <path d="M.8 8h4" />
    </>
  ),
  checking: (
    <>
      <circle cx={8} cy={8} r={6.4} />
      <path d="M3.4 8.4h2l1.4-3.2 2.2 5.4 1.3-2.2h2.3" strokeWidth={1.5} />
    </>
  ),
  live: (
    <>
      <circle cx={8} cy={8} r={6.7} strokeWidth={1.5} />
      {dot(8, 8, 3.9)}
    </>
  ),
  replaced: (
    <>
      <circle cx={8} cy={8} r={6.7} strokeWidth={1.4} strokeDasharray="2.4 1.81" />
      <circle cx={8} cy={8} r={3.1} strokeWidth={1.5} />
    </>
  ),
  undoing: (
    <>
      {back}
      {dot(4, 13.4, 1.4)}
    </>
  ),
  undone: back,
  removed: (
    <>
      <circle cx={8} cy={8} r={6.7} strokeWidth={1.4} strokeDasharray="2.4 1.81" />
      <path d="M5.2 8h5.6" strokeWidth={2} />
    </>
  ),
  stopped: (
    <>
      <path d="M8 1.4L14.6 8 8 14.6 1.4 8z" />
      {dot(8, 8, 2.1)}
    </>
  ),
  met: (
    <>
      {solid}
      {check}
    </>
  ),
  asked: (
    <>
      {square}
      {dot(8, 6.2, 1.9)}
      <path d="M4.6 12.2c.4-3 6.4-3 6.8 0z" fill="currentColor" stroke="none" />
    </>
  ),
  "not-yet": (
    <>
      {square}
      <path d="M8 4.8V8l2.4 1.6" />
    </>
  ),
  "not-met": (
    <>
      {solid}
      <path d="M5.4 5.4l5.2 5.2M10.6 5.4l-5.2 5.2" stroke={GROUND} strokeWidth={1.8} />
    </>
  ),
};

/** A state's shape. Never without its word nearby. */
export function Glyph({ shape, tone, size = 16 }: { shape: Shape; tone: Tone; size?: number }) {
  return (
    <svg
      className={`flex-none align-[-3px] ${tone}`}
      width={size}
      height={size}
      viewBox="0 0 16 16"
      fill="none"
      stroke="currentColor"
      strokeWidth={1.7}
      strokeLinecap="round"
      strokeLinejoin="round"
      aria-hidden="true"
    >
      {SHAPES[shape]}
    </svg>
  );
}

/** Shape and word together. */
export function StateWord({ state, tone, children }: { state: State; tone?: Tone; children?: ReactNode }) {
  const shown = tone ?? state.tone;
  return (
    <span className={`inline-flex items-center gap-1.5 font-semibold whitespace-nowrap [td>&]:align-top ${shown}`}>
      <Glyph shape={state.shape} tone={shown} />
      <span>{children ?? state.word}</span>
    </span>
  );
}
