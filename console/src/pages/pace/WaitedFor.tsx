import type { Schemas } from "../../api/client";
import { length } from "./parts";
import { Wide } from "../../design/Wide";

/** Which groups promotions waited for; persons are not named, and nobody is ranked. */
export function WaitedFor({ environments }: { environments: Schemas["EnvironmentPaceView"][] }) {
  const rows = environments.flatMap(({ environment, waitedFor }) =>
    waitedFor.map((each) => ({ environment, ...each })),
  );
  if (rows.length === 0) return null;
  return (
    <section className="sheet mt-5 p-5">
      <h2 className="mb-2">Whom promotions waited for</h2>
      <Wide label="Whom promotions waited for">
        <table>
          <thead>
            <tr>
              <th>Asked</th>
              <th>Into</th>
              <th className="text-right">Promotions</th>
              <th className="text-right">On average</th>
              <th className="text-right">All together</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((each) => (
              <tr key={`${each.environment} ${each.asked}`}>
                <td>
                  <b>{each.asked}</b>
                </td>
                <td>{each.environment}</td>
                <td className="text-right">{each.count}</td>
                <td className="text-right">{length(each.seconds / each.count)}</td>
                <td className="text-right">{length(each.seconds)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
      <p className="quiet mt-2 text-[12px]">
        From the request until as many had said yes as the gate wanted. They are asked at the same time, so these are no
        parts of a whole.
      </p>
    </section>
  );
}
