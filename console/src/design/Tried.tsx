import { useMutation } from "@tanstack/react-query";
import type { ReactNode } from "react";

/** How far back a text is tried. */
export const DAYS = 90;

interface TriedProps<T> {
  text: string;
  ask: (text: string) => Promise<T>;
  show: (answer: T) => ReactNode;
}

/** What a text would have done lately; asked for, as it takes a moment, and gone once the text is another. */
export function Tried<T>({ text, ask, show }: TriedProps<T>) {
  const tried = useMutation({ mutationFn: ask });
  const shown = tried.variables === text;
  return (
    <div className="grid gap-2 text-sm">
      <div>
        <button type="button" className="btn small" disabled={tried.isPending} onClick={() => tried.mutate(text)}>
          {tried.isPending ? "Trying…" : `Try on the last ${DAYS} days`}
        </button>
      </div>
      <div role="status" className="grid gap-3">
        {tried.error && shown && <p className="bad">{tried.error.message}</p>}
        {tried.data !== undefined && shown && show(tried.data)}
        {tried.data !== undefined && !shown && <p className="quiet">The text has changed since it was tried.</p>}
      </div>
    </div>
  );
}
