import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { useFresh, useMay } from "../../api/may";
import { api, need } from "../../api/client";
import { previews } from "../../api/queries";
import { Ask } from "../../design/Ask";
import { Loading, Trouble } from "../../design/parts";
import { At } from "../../design/time";
import { None, Rows, Sheet } from "./parts";

const ABOUT =
  "A branch that can be looked at before it is merged. A preview ends with its branch, or when nobody pushed for long.";

/** Environments of a branch, for as long as it is looked at. */
export default function Previews() {
  const known = useQuery(previews());
  const may = useMay();
  const fresh = useFresh();
  if (known.isPending) return <Loading />;
  if (known.isLoadingError) return <Trouble whole error={known.error} />;
  return (
    <>
      <title>Previews · Settings · Paseo</title>
      <Sheet lead title="Previews" about={ABOUT}>
        {known.data.length === 0 && (
          <None>None now. A pipeline file that says preview makes one of each branch that it names.</None>
        )}
        {known.data.length > 0 && (
          <Rows head={["Preview", "Branch", "Version", "Pushed last", ""]}>
            {known.data.map((each) => (
              <tr key={each.environment}>
                <td>
                  {each.url ? (
                    <a href={each.url} rel="noreferrer">
                      {each.environment}
                    </a>
                  ) : (
                    <b>{each.environment}</b>
                  )}
                  <div className="quiet">of {each.owner}</div>
                </td>
                <td>
                  {each.component} {each.branch}
                </td>
                <td>
                  {each.deployment ? <Link to={`/deployments/${each.deployment}`}>{each.version}</Link> : "nothing yet"}
                  <div className="quiet">{each.removing ?? each.status}</div>
                </td>
                <td>
                  <At time={each.pushedAt} />
                </td>
                <td className="number">
                  {may("PROMOTE") && !each.removing && (
                    <Ask
                      small
                      danger
                      label="Remove"
                      title={`Remove ${each.environment}`}
                      what={<p>What is there is taken off its hosts. The next push to {each.branch} makes it anew.</p>}
                      act="Remove it"
                      reason=""
                      onAct={async () => {
                        await need(
                          api.DELETE("/api/v1/previews/{environment}", {
                            params: { path: { environment: each.environment } },
                          }),
                        );
                        await fresh();
                      }}
                    />
                  )}
                </td>
              </tr>
            ))}
          </Rows>
        )}
      </Sheet>
    </>
  );
}
