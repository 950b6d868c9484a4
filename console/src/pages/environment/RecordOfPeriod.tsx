import { useState } from "react";
import { RecordLinks } from "../../design/RecordLinks";

const PERIODS = [1, 7, 30, 90, 365];
const DAY = 24 * 3600 * 1000;

/** All that went live here in a time, in one document; and what is new, for an announcement. */
export function RecordOfPeriod({ name }: { name: string }) {
  const [days, setDays] = useState(7);
  const [now] = useState(() => new Date());
  const since = new Date(now.getTime() - days * DAY).toISOString();
  return (
    <section className="sheet pad" aria-label="Release record">
      <h2>Release record</h2>
      <label className="mb-2 flex items-center gap-2">
        Of the last
        <select value={days} onChange={(event) => setDays(Number(event.target.value))}>
          {PERIODS.map((each) => (
            <option key={each} value={each}>
              {each === 1 ? "day" : `${each} days`}
            </option>
          ))}
        </select>
      </label>
      <p>
        <RecordLinks of={`environment=${name}&since=${since}`} />; what is new:{" "}
        <a href={`/api/v1/release-notes?environment=${name}&since=${since}`} download={`${name}.md`}>
          notes for an announcement
        </a>{" "}
        (Markdown)
      </p>
    </section>
  );
}
