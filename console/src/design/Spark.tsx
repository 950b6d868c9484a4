const SPARK = "flex-none text-ink [&.good]:text-good [&.warn]:text-warn [&.bad]:text-bad";
const BARS =
  "[&_figcaption]:text-[12px] [&_figcaption]:text-ink-2 [&_figcaption]:mb-1 [&_svg]:w-full [&_svg]:max-w-160";
const BAR = "[&.good]:fill-good [&.bad]:fill-bad [&.warn]:fill-warn [&.rest]:fill-stone";
const LABEL = "[font:450_11px_var(--font-ui)] fill-ink-2";

/** A trend in a line: the last point is the one that is told beside it. */
export function Spark({ values, label, tone = "ink" }: { values: number[]; label: string; tone?: string }) {
  if (values.length < 2) return null;
  const low = Math.min(...values);
  const high = Math.max(...values);
  const x = (at: number) => 4 + (at * 100) / (values.length - 1);
  const y = (value: number) => (high === low ? 14 : 24 - ((value - low) * 20) / (high - low));
  const last = values.at(-1) ?? 0;
  return (
    <svg className={`${SPARK} ${tone}`} width={110} height={28} viewBox="0 0 110 28" role="img" aria-label={label}>
      <polyline
        points={values.map((value, at) => `${x(at)},${y(value)}`).join(" ")}
        fill="none"
        stroke="var(--ink-3)"
        strokeWidth={1.6}
        strokeLinejoin="round"
      />
      <circle cx={x(values.length - 1)} cy={y(last)} r={3} fill="currentColor" />
    </svg>
  );
}

export interface Bar {
  label: string;
  parts: { value: number; tone: string; word: string }[];
}

const spoken = (bar: Bar) => `${bar.label} ${bar.parts.map((part) => `${part.value} ${part.word}`).join(", ")}`;

/**
 * One bar a run, each of parts that add up; the words of a bar are its title and in the table for those who cannot
 * see it.
 */
export function Bars({ bars, caption, height = 96 }: { bars: Bar[]; caption: string; height?: number }) {
  const most = Math.max(1, ...bars.map((bar) => bar.parts.reduce((sum, part) => sum + part.value, 0)));
  const width = 640;
  const step = Math.min(40, width / Math.max(1, bars.length));
  return (
    <figure className={BARS}>
      <figcaption>{caption}</figcaption>
      <svg viewBox={`0 0 ${width} ${height + 18}`} role="img" aria-label={`${caption}: ${bars.map(spoken).join("; ")}`}>
        <line x1={0} x2={width} y1={height + 0.5} y2={height + 0.5} stroke="var(--line-strong)" />
        <text x={width} y={10} textAnchor="end" className={LABEL}>
          {most.toLocaleString()}
        </text>
        {bars.map((bar, at) => (
          <OneBar
            key={bar.label}
            bar={bar}
            x={at * step + step * 0.15}
            width={step * 0.7}
            most={most}
            height={height}
          />
        ))}
      </svg>
    </figure>
  );
}

function OneBar({ bar, x, width, most, height }: { bar: Bar; x: number; width: number; most: number; height: number }) {
  const tops = bar.parts.map((_, at) => bar.parts.slice(0, at + 1).reduce((sum, part) => sum + part.value, 0));
  return (
    <g>
      <title>{`${bar.label}: ${bar.parts.map((part) => `${part.value} ${part.word}`).join(", ")}`}</title>
      {bar.parts.map((part, at) => {
        const length = (part.value / most) * (height - 14);
        return (
          <rect
            key={part.word}
            x={x}
            width={width}
            y={height - ((tops[at] ?? 0) / most) * (height - 14)}
            height={length}
            className={`${BAR} ${part.tone}`}
          />
        );
      })}
      <text x={x + width / 2} y={height + 13} textAnchor="middle" className={LABEL}>
        {bar.label}
      </text>
    </g>
  );
}
