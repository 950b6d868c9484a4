import type { Schemas } from "../../api/client";
import { Glyph } from "../../design/Glyph";
import { criterionState } from "../../design/states";
import { At } from "../../design/time";

type View = Schemas["DeploymentView"];

const ORDER = ["asked", "not met", "not yet", "met"];

/** Every criterion with its sentence, the unmet first, and what people said. */
export function Gate({ view, mine }: { view: View; mine: boolean }) {
  const criteria = view.gate.toSorted((a, b) => ORDER.indexOf(a.state) - ORDER.indexOf(b.state));
  if (criteria.length === 0 && view.rulings.length === 0) return null;
  return (
    <section aria-label="Gate">
      <ul className="criteria">
        {criteria.map((each) => {
          const state = criterionState(each.state);
          const tone = each.state === "asked" && mine ? "need" : state.tone;
          return (
            <li key={each.name}>
              <Glyph shape={state.shape} tone={tone} />
              <div><b className={tone === "need" ? "need" : ""}>{each.name}<span className="sr-only">, {state.word}</span></b><span>{each.sentence}</span></div>
            </li>
          );
        })}
      </ul>
      {view.rulings.map((ruling) => (
        <p key={ruling.at} className="said">
          <b>{ruling.by}</b> said {ruling.yes ? "yes" : "no"} <At time={ruling.at} />{ruling.comment && <>: “{ruling.comment}”</>}
          {!ruling.counts && <span className="warn"> It no longer counts: what was approved has changed.</span>}
        </p>
      ))}
    </section>
  );
}
