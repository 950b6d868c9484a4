import type { Schemas } from "../api/client";
import { Glyph } from "./Glyph";
import { criterionState } from "./states";
import { At } from "./time";

const SAID = "mt-2 px-3 py-1.5 border-l-2 border-l-line-strong text-[13px] leading-[17px] text-ink-2";

const ORDER: Schemas["CriterionView"]["state"][] = ["asked", "not-met", "not-yet", "met"];

/** Every criterion with its sentence, the unmet first, and what people said. */
export function Criteria({
  criteria,
  decisions,
  mine,
}: {
  criteria: Schemas["CriterionView"][];
  decisions: Schemas["GateDecisionView"][];
  mine: boolean;
}) {
  return (
    <>
      <ul className="criteria">
        {criteria
          .toSorted((a, b) => ORDER.indexOf(a.state) - ORDER.indexOf(b.state))
          .map((each) => {
            const state = criterionState(each.state);
            const tone = each.state === "asked" && mine ? "need" : state.tone;
            return (
              <li key={each.name} className="flex gap-2.5 py-[3.5px] [&>svg]:mt-px">
                <Glyph shape={state.shape} tone={tone} />
                <div>
                  <b className={`block text-[13px] leading-[18px] ${tone === "need" ? "need" : ""}`}>
                    {each.name}
                    <span className="sr-only">, {state.word}</span>
                  </b>
                  <span className="text-[13px] leading-[17px] text-ink-2">{each.sentence}</span>
                </div>
              </li>
            );
          })}
      </ul>
      {decisions.map((decision) => (
        <p key={decision.at} className={SAID}>
          <b>{decision.by}</b>
          {decision.inPlaceOf && (
            <>
              {" "}
              in place of <b>{decision.inPlaceOf}</b>
            </>
          )}{" "}
          said {decision.yes ? "yes" : "no"} <At time={decision.at} />
          {decision.comment && <>: “{decision.comment}”</>}
          {!decision.counts && <span className="warn"> It no longer counts: what was approved has changed.</span>}
        </p>
      ))}
    </>
  );
}
