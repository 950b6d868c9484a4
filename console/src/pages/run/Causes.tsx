import type { Schemas } from "../../api/client";
import { At } from "../../design/time";

const CAUSES =
  "flex flex-wrap items-center gap-x-2.5 gap-y-1 py-1.75 border-t border-t-line border-b border-b-line " +
  "text-[13px] text-ink-2";
const CAUSE = "inline-flex items-center gap-2 [&_b]:text-ink [&_b]:font-[560] [&_time]:text-ink-3";
const ARROW =
  "relative w-10 h-0.5 bg-ink after:content-[''] after:absolute after:right-0 after:-top-0.75 after:w-2 " +
  "after:h-2 after:border-t-2 after:border-r-2 after:border-ink after:[transform:rotate(45deg)]";

/** The chain of causes on one line, the first cause first. */
export function Causes({ links, last }: { links: Schemas["Link"][]; last: string }) {
  return (
    <div className={CAUSES}>
      <span className="text-[12px] font-semibold">Because of</span>
      {links.toReversed().map((link) => (
        <span key={link.id} className={CAUSE}>
          <b>{link.sentence}</b> <At time={link.at} />
          <i className={ARROW} aria-hidden="true" />
        </span>
      ))}
      <span className={CAUSE}>
        <b>{last}</b>
      </span>
    </div>
  );
}
