import type { Schemas } from "../../api/client";
import { At } from "../../design/time";

/** The chain of causes on one line, the first cause first. */
export function Causes({ links, last }: { links: Schemas["Link"][]; last: string }) {
  return (
    <div className="causes">
      <span className="causes-head">Because of</span>
      {links.toReversed().map((link) => (
        <span key={link.id} className="cause">
          <b>{link.sentence}</b> <At time={link.at} />
          <i className="arrow" aria-hidden="true" />
        </span>
      ))}
      <span className="cause">
        <b>{last}</b>
      </span>
    </div>
  );
}
