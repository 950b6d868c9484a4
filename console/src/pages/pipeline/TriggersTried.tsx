import { api, need, type Schemas } from "../../api/client";
import { At } from "../../design/time";
import { DAYS, Tried } from "../../design/Tried";
import { PLAIN } from "../../design/classes";

type View = Schemas["TriggerDryRunView"];

const ANSWERS: Record<Schemas["DifferingEventView"]["then"], [words: string, tone: string]> = {
  starts: ["would start", "good"],
  "starts-nothing": ["would start nothing any more", "bad"],
  unknown: ["cannot be told", "warn"],
};

/** What the triggers of a text would have made of what happened lately. */
export const TriggersTried = ({ name, text }: { name: string; text: string }) => (
  <section className="grid gap-2" aria-label="Its triggers lately">
    <Tried
      text={text}
      ask={(asked) =>
        need(
          api.POST("/api/v1/components/{name}/pipeline/dry-run", {
            params: { path: { name } },
            body: { text: asked, days: DAYS },
          }),
        )
      }
      show={(view) => <Shown view={view} />}
    />
  </section>
);

/** How many would start a run, of how many. */
export const sentence = ({ events, all, now, then, unknown }: View) =>
  `Of ${events} that happened${all ? "" : " (the newest)"}, ${now} start a run by the main branch’s file, ` +
  `and ${then} would by this one.${unknown > 0 ? ` Of ${unknown} it cannot be told.` : ""}`;

const Shown = ({ view }: { view: View }) => (
  <>
    <p>{sentence(view)}</p>
    {view.differing.length > 0 && (
      <ul className={`${PLAIN} grid max-h-96 gap-2 overflow-auto`} tabIndex={0} aria-label="What would go otherwise">
        {view.differing.map((each) => {
          const [words, tone] = ANSWERS[each.then];
          return (
            <li key={`${each.at} ${each.sentence}`} className="grid gap-0.5">
              <span>
                <span className={tone}>{words}</span> {each.sentence}{" "}
                <span className="quiet">
                  <At time={each.at} />
                </span>
              </span>
              <span className="quiet">{each.why.join("; ")}</span>
            </li>
          );
        })}
      </ul>
    )}
  </>
);
