import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, need, type Schemas } from "../../api/client";
import { At } from "../../design/time";
import { length } from "./parts";
import { Wide } from "../../design/Wide";

const ORDERS = [
  ["spent", "where most time goes"],
  ["slowest", "what takes longest"],
  ["flakiest", "what fails and then passes"],
  ["retried", "what is tried again"],
  ["failing", "what fails"],
] as const;
const MOST = 15;

interface StagesProps {
  component?: string | undefined;
  label?: string | undefined;
  since: string;
}

/** Where the time of builds goes, stage by stage, and which of them cannot be relied on. */
export function Stages(query: StagesProps) {
  const [order, setOrder] = useState<string>("spent");
  const stages = useQuery({
    queryKey: ["pace", "stages", query, order],
    queryFn: () => need(api.GET("/api/v1/pace/stages", { params: { query: { ...query, order, limit: MOST } } })),
    placeholderData: keepPreviousData,
  });
  if (!stages.data || stages.data.stages.length === 0) return null;
  return (
    <section className="sheet mt-5 p-5">
      <header className="mb-2 flex flex-wrap items-center gap-x-4 gap-y-2">
        <h2 className="m-0">Stages</h2>
        <label className="text-[13px] text-ink-2">
          Order{" "}
          <select value={order} onChange={(event) => setOrder(event.target.value)}>
            {ORDERS.map(([value, word]) => (
              <option key={value} value={value}>
                {word}
              </option>
            ))}
          </select>
        </label>
      </header>
      <Wide label="Stages">
        <table>
          <thead>
            <tr>
              <th>Stage</th>
              <th className="text-right">Runs</th>
              <th className="text-right">Median</th>
              <th className="text-right">90 %</th>
              <th className="text-right">All together</th>
              <th className="text-right">Failed</th>
              <th className="text-right">Flaky</th>
              <th className="text-right">Tried again</th>
              <th className="pl-8">Lately</th>
            </tr>
          </thead>
          <tbody>
            {stages.data.stages.map((each) => (
              <tr key={`${each.component} ${each.stage}`}>
                <td>
                  {each.component} <b>{each.stage}</b>
                </td>
                <td className="text-right">{each.runs}</td>
                <td className="text-right">{length(each.median)}</td>
                <td className="text-right">{length(each.ninety)}</td>
                <td className="text-right">{length(each.spent)}</td>
                <td className="text-right">
                  <Share of={each} count={each.failed} />
                </td>
                <td className="text-right">
                  <Share of={each} count={each.flaky} />
                </td>
                <td className="text-right">{each.retried}</td>
                <td className="pl-8">
                  <Link to={`/pace/shifts?${new URLSearchParams({ component: each.component, stage: each.stage })}`}>
                    Slower or failing?
                  </Link>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
      <p className="quiet mt-2 text-[12px]">
        Of attempts that ended since <At time={stages.data.since} />. Flaky: one failed and a later one of the same run
        passed, with the same commit and inputs.
      </p>
    </section>
  );
}

const Share = ({ of, count }: { of: Schemas["StagePaceView"]; count: number }) =>
  count === 0 ? (
    <span className="quiet">0</span>
  ) : (
    <>
      {count} <span className="quiet">({Math.round((100 * count) / of.runs)} %)</span>
    </>
  );
