import { format } from "date-fns";
import { useState } from "react";
import { momentOf, written } from "./moment";

const OFTEN = ["1 h ago", "today 9:00", "yesterday 9:00", "yesterday 17:00", "fri 17:00", "7 d ago", "30 d ago"];
const said = (moment: Date) => format(moment, "EEE d MMM yyyy, HH:mm");

interface MomentFormProps {
  label: string;
  value: string;
  none: string;
  /** As the address has it; empty: none. */
  onTake: (value: string) => void;
}

/** Asks for a past moment; what was understood is said before it is taken. */
export function MomentForm({ label, value, none, onTake }: MomentFormProps) {
  const [text, setText] = useState("");
  const now = new Date();
  const found = momentOf(text, now);
  const past = found && found <= now ? found : undefined;
  const take = (moment: Date | undefined) => onTake(moment ? written(moment) : "");
  return (
    <>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (past) take(past);
        }}
      >
        <label>
          <b>{label}</b>
          <input
            className="input"
            placeholder="fri 17:00, 3 h ago, 27 nov 9:00"
            value={text}
            onChange={(event) => setText(event.target.value)}
            aria-invalid={text !== "" && !past}
            aria-describedby="moment-said"
          />
        </label>
        <p id="moment-said" role="status" className="quiet my-2 min-h-[20px]">
          {text === ""
            ? ""
            : past
              ? `${said(past)}; Enter takes it`
              : found
                ? "That is yet to come."
                : "No time yet: a day and a time, or how long ago."}
        </p>
      </form>
      <ul className="m-0 grid list-none grid-cols-2 gap-1 p-0">
        {OFTEN.map((each) => (
          <li key={each}>
            <button
              type="button"
              className="btn small w-full"
              disabled={(momentOf(each, now) ?? now) >= now}
              onClick={() => take(momentOf(each, now))}
            >
              {each}
            </button>
          </li>
        ))}
        {value && (
          <li>
            <button type="button" className="btn small w-full" onClick={() => take(undefined)}>
              {none}
            </button>
          </li>
        )}
      </ul>
    </>
  );
}
