import type { ReactNode } from "react";

/** The marks of the walk: a version's way along its route, in one component, wide, narrow or in a row. */
export type StopState =
  "built" | "live" | "replaced" | "ahead" | "deploying" | "checking" | "stopped" | "undone" | "warned";
export type PathKind = "walked" | "ahead" | "moving" | "none";
export type GateState = "open" | "later" | "person" | "other" | "rejected";

export interface Stop {
  key: string;
  name: string;
  time?: ReactNode;
  state: StopState;
  /** The path from this stop to the next one. */
  path: PathKind;
  /** The gate that stands before this stop, if any. */
  gate?: GateState;
  below?: ReactNode;
  /** What the mark says to those who do not see it. */
  sentence: string;
}

const TONE: Record<StopState, string> = {
  built: "ink",
  live: "good",
  replaced: "rest2",
  ahead: "rest",
  deploying: "ink",
  checking: "ink",
  stopped: "bad",
  undone: "bad",
  warned: "warn",
};

export function StopMark({ state, size = 24 }: { state: StopState; size?: number }) {
  return (
    <svg className={`stop-mark ${TONE[state]}`} width={size} height={size} viewBox="-14 -14 28 28" aria-hidden="true">
      {shape(state)}
    </svg>
  );
}

function shape(state: StopState): ReactNode {
  const ring = (dash?: string) => <circle r={12} className="ring" strokeWidth={2.6} strokeDasharray={dash} />;
  switch (state) {
    case "built":
      return <circle r={8.6} fill="currentColor" />;
    case "live":
      return (
        <>
          {ring()}
          <circle r={6.2} fill="currentColor" />
        </>
      );
    case "replaced":
      return (
        <>
          {ring("5 4.4")}
          <circle r={5} className="ring" strokeWidth={2.4} />
        </>
      );
    case "ahead":
      return <circle r={10.3} className="ring" strokeWidth={2.4} />;
    case "deploying":
      return (
        <>
          {ring()}
          <path d="M0 -12a12 12 0 0 0 0 24z" fill="currentColor" />
        </>
      );
    case "checking":
      return (
        <>
          {ring()}
          <path d="M-7.2 .6h3.6l2.6-5.4 3.6 10.2 2.4-4.8h3" className="line" strokeWidth={2.4} />
        </>
      );
    case "stopped":
      return (
        <>
          <path d="M0 -12.6L12.6 0 0 12.6-12.6 0z" fill="currentColor" />
          <path d="M-4.2 -4.2l8.4 8.4m0 -8.4l-8.4 8.4" className="cut" strokeWidth={2.6} />
        </>
      );
    case "undone":
      return (
        <>
          <circle r={10.3} className="ring" strokeWidth={2.4} />
          <path d="M4 5H-1a4 4 0 0 1 0-8h4M0 -6l3 3-3 3" className="line" strokeWidth={2.2} />
        </>
      );
    case "warned":
      return (
        <>
          <path d="M0 -12L12.4 10.4H-12.4z" fill="currentColor" />
          <path d="M0 -4v6M0 6.2v.1" className="cut" strokeWidth={2.6} />
        </>
      );
  }
}

const GATE_TONE: Record<GateState, string> = {
  open: "good",
  later: "rest2",
  person: "need",
  other: "ink",
  rejected: "bad",
};

/** A gate across the path: two posts, and between them what holds, or two leaves swung open. */
export function GateMark({ state, height = 82 }: { state: GateState; height?: number }) {
  const end = height / 2;
  const post = Math.max(2.4, height * 0.06);
  return (
    <svg
      className={`gate-mark ${GATE_TONE[state]}`}
      width={44}
      height={height + 12}
      viewBox={`-22 ${-end - 6} 44 ${height + 12}`}
      aria-hidden="true"
    >
      {state === "open" ? (
        <path d={`M0 ${-end}l18 ${end * 0.42}M0 ${end}l18 ${-end * 0.42}`} className="line" strokeWidth={post * 0.9} />
      ) : (
        <line y1={-end} y2={end} stroke="currentColor" strokeWidth={state === "later" ? post * 0.5 : post * 0.9} />
      )}
      {(state === "person" || state === "other") && <Person r={Math.min(15, height * 0.19)} />}
      {state === "rejected" && (
        <>
          <path d="M-8 -8l16 16m0 -16l-16 16" className="cut" strokeWidth={8} />
          <path d="M-8 -8l16 16m0 -16l-16 16" className="line" strokeWidth={3.6} />
        </>
      )}
      <circle cy={-end} r={post} fill="currentColor" />
      <circle cy={end} r={post} fill="currentColor" />
    </svg>
  );
}

function Person({ r }: { r: number }) {
  const q = r * 0.5;
  if (r < 6) return <circle r={4.6} className="knob" strokeWidth={1.2} />;
  return (
    <g className="max-[1080px]:[transform:rotate(-90deg)]">
      <circle r={r} className="knob" strokeWidth={2} />
      <circle cy={-q * 0.62} r={q * 0.62} className="man" />
      <path
        d={`M${-q * 1.15} ${q * 1.12}c${q * 0.12} ${-q * 1.5} ${q * 2.18} ${-q * 1.5} ${q * 2.3} 0z`}
        className="man"
      />
    </g>
  );
}

/** The walk with names, times and reasons, on its slab. It turns vertical where there is no width for it. */
export function Walk({ stops, label }: { stops: Stop[]; label: string }) {
  return (
    <ol className="walk" aria-label={label}>
      {stops.map((stop) => (
        <li key={stop.key} className="walk-stop" data-path={stop.path} data-gate={stop.gate}>
          <div className="walk-name" title={stop.name}>
            <b>{stop.name}</b> {stop.time && <span>{stop.time}</span>}
          </div>
          <div className="walk-mark">
            {stop.gate && <GateMark state={stop.gate} height={74} />}
            <StopMark state={stop.state} />
            <i className={`path ${stop.path}`} />
            <span className="sr-only">{stop.sentence}</span>
          </div>
          <div className="walk-below">{stop.below}</div>
        </li>
      ))}
    </ol>
  );
}

/** The same in 24 pixels, without text; the sentence is for those who do not see it. */
export function WalkRow({
  stops,
  sentence,
}: {
  stops: Pick<Stop, "key" | "state" | "path" | "gate">[];
  sentence: string;
}) {
  return (
    <span className="walk-row" role="img" aria-label={sentence}>
      {stops.map((stop) => (
        <span key={stop.key} className="walk-row-stop">
          {stop.gate && <GateMark state={stop.gate} height={20} />}
          <StopMark state={stop.state} size={13} />
          <i className={`path ${stop.path}`} />
        </span>
      ))}
    </span>
  );
}
