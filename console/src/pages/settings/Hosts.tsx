import { useQuery } from "@tanstack/react-query";
import { useFresh, useMay } from "../../api/may";
import { api, need, type Schemas } from "../../api/client";
import { Ask } from "../../design/Ask";
import { bytes, Loading, Trouble } from "../../design/parts";
import { At } from "../../design/time";
import { Narrowed, None, Rows, Sheet } from "./parts";
import { hosts } from "./queries";
import { Retire } from "../../design/Retire";

type View = Schemas["KnownHostView"];

/** The machines that versions are brought to. */
export default function Hosts() {
  const known = useQuery(hosts());
  const may = useMay();
  if (known.isPending) return <Loading />;
  if (known.isLoadingError) return <Trouble whole error={known.error} />;
  return (
    <>
      <title>Hosts · Settings · Paseo</title>
      <Sheet
        lead
        title="Hosts"
        about="A host in maintenance is left out of deployments, which say so; it catches up when that ends."
      >
        {known.data.length === 0 && <None>None yet. A host is there as soon as an agent is enrolled for it.</None>}
        {known.data.length > 0 && (
          <Narrowed
            of={known.data}
            what="hosts"
            by={(host) => `${host.name} ${host.agent ?? ""} ${host.maintenance ?? ""}`}
          >
            {(shown) => (
              <Rows head={["Host", "Reached by", "Disk", "Maintenance", ""]}>
                {shown.map((host) => (
                  <tr key={host.name}>
                    <td>
                      <b>{host.name}</b>
                    </td>
                    <td>
                      {host.agent ??
                        (host.servedBy ? `SSH, from ${host.servedBy}` : <span className="bad">nobody</span>)}
                      {host.lastContact && (
                        <div className="quiet">
                          heard of <At time={host.lastContact} />
                        </div>
                      )}
                    </td>
                    <td className="whitespace-nowrap">{disk(host)}</td>
                    <td>
                      {host.maintenance && (
                        <span className="warn">
                          {host.maintenance}
                          {host.maintenanceSince && (
                            <>
                              , since <At time={host.maintenanceSince} />
                            </>
                          )}
                        </span>
                      )}
                    </td>
                    <td>
                      <div className="flex justify-end gap-2">
                        {may("EDIT_ENVIRONMENT") && <Maintenance host={host} />}
                        {may("EDIT_ENVIRONMENT") && <Retire what="host" name={host.name} />}
                      </div>
                    </td>
                  </tr>
                ))}
              </Rows>
            )}
          </Narrowed>
        )}
      </Sheet>
    </>
  );
}

const disk = ({ diskFree, diskTotal }: View) =>
  diskFree === undefined || diskTotal === undefined ? "not told yet" : `${bytes(diskFree)} free of ${bytes(diskTotal)}`;

function Maintenance({ host }: { host: View }) {
  const fresh = useFresh();
  const params = { params: { path: { name: host.name } } };
  return host.maintenance ? (
    <Ask
      small
      label="End maintenance"
      title={`End the maintenance of ${host.name}`}
      what={<p>It catches up by itself with what is live meanwhile, of each component that it has.</p>}
      act="End it"
      reason=""
      onAct={async () => {
        await need(api.DELETE("/api/v1/hosts/{name}/maintenance", params));
        await fresh();
      }}
    />
  ) : (
    <Ask
      small
      label="Maintenance"
      title={`Put ${host.name} into maintenance`}
      what={<p>Deployments leave it out until that ends. What is live on it stays as it is.</p>}
      act="Begin it"
      reason="Why"
      needed
      onAct={async (reason) => {
        await need(api.PUT("/api/v1/hosts/{name}/maintenance", { ...params, body: { reason } }));
        await fresh();
      }}
    />
  );
}
