import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { useFresh, useMay } from "../../api/may";
import { api, need, type Schemas } from "../../api/client";
import { agents } from "../../api/queries";
import { Ask } from "../../design/Ask";
import { Doing } from "../../design/Doing";
import { TextField } from "../../design/form";
import { Loading, Trouble } from "../../design/parts";
import { At } from "../../design/time";
import { listed, Narrowed, None, Once, Rows, Sheet } from "./parts";
import { Retire } from "../../design/Retire";

type View = Schemas["AgentView"];

/** The processes that do the work: what each offers, behind which walls, and when it was heard of last. */
export default function Agents() {
  const known = useQuery(agents());
  const may = useMay();
  if (known.isPending) return <Loading />;
  if (known.isLoadingError) return <Trouble whole error={known.error} />;
  return (
    <>
      <title>Agents · Settings · Paseo</title>
      <Sheet
        lead
        title="Agents"
        about="They run stages and deployments. One that drains finishes what it has and takes nothing new."
        acts={may("ENROL_AGENT") && <Enrol />}
      >
        {known.data.length === 0 && <None>None yet, so nothing can run. Enrol one: it takes four lines to paste.</None>}
        {known.data.length > 0 && may("ENROL_AGENT") && (
          <p className="quiet">
            After the service was upgraded they are started again one by one, from the archive that it serves:{" "}
            <Link to="/docs/how-to/upgrade">how</Link>.
          </p>
        )}
        {known.data.length > 0 && (
          <Narrowed
            of={known.data}
            what="agents"
            by={(agent) => `${agent.name} ${agent.host ?? ""} ${agent.offers.join(" ")}`}
          >
            {(shown) => (
              <Rows head={["Agent", "State", "Offers", "Walls", "Works on", ""]}>
                {shown.map((agent) => (
                  <Row key={agent.name} agent={agent} enrols={may("ENROL_AGENT")} />
                ))}
              </Rows>
            )}
          </Narrowed>
        )}
      </Sheet>
    </>
  );
}

function Row({ agent, enrols }: { agent: View; enrols: boolean }) {
  return (
    <tr>
      <td>
        <b>{agent.name}</b>
        {agent.host && <div className="quiet">on {agent.host}</div>}
      </td>
      <td>
        {agent.drained ? "drains" : agent.present ? "present" : <span className="bad">away</span>}
        <div className="quiet">
          {agent.lastContact ? (
            <>
              heard of <At time={agent.lastContact} />
            </>
          ) : (
            "never heard of"
          )}
        </div>
      </td>
      <td>{agent.offers.join(", ") || "nothing named"}</td>
      <td className="max-w-[260px]">
        {agent.walls ?? "not told yet"}
        <div className="quiet">
          {agent.untrusted ? "also takes what is not trusted" : "takes what is trusted alone"}
        </div>
      </td>
      <td className="number">{agent.working}</td>
      <td>
        {enrols && (
          <div className="flex justify-end gap-2">
            <Drain agent={agent} />
            <Renew agent={agent} />
            <Retire what="agent" name={agent.name} />
          </div>
        )}
      </td>
    </tr>
  );
}

function Drain({ agent }: { agent: View }) {
  const fresh = useFresh();
  const params = { params: { path: { name: agent.name } } };
  return agent.drained ? (
    <Ask
      small
      label="Take work again"
      title={`${agent.name} takes work again`}
      what={<p>What waits for it is offered to it at once.</p>}
      act="Take work again"
      reason=""
      onAct={async () => {
        await need(api.DELETE("/api/v1/agents/{name}/drain", params));
        await fresh();
      }}
    />
  ) : (
    <Ask
      small
      label="Drain"
      title={`Drain ${agent.name}`}
      what={
        <p>
          It finishes the {agent.working} it works on, and takes nothing new.
          {agent.host && ` Deployments onto ${agent.host} wait meanwhile, and say so.`}
        </p>
      }
      act="Drain it"
      reason=""
      onAct={async () => {
        await need(api.PUT("/api/v1/agents/{name}/drain", params));
        await fresh();
      }}
    />
  );
}

function Renew({ agent }: { agent: View }) {
  const fresh = useFresh();
  return (
    <Ask
      small
      label="New secret"
      title={`A new secret for ${agent.name}`}
      what={
        <p>It takes it within a minute, by itself; what it works on goes on. The one before is refused from then on.</p>
      }
      act="Renew it"
      reason=""
      onAct={async () => {
        await need(api.POST("/api/v1/agents/{name}/renewal", { params: { path: { name: agent.name } } }));
        await fresh();
      }}
    />
  );
}

function Enrol() {
  const [name, setName] = useState("");
  const [host, setHost] = useState("");
  const [offers, setOffers] = useState("");
  const [untrusted, setUntrusted] = useState(false);
  const fresh = useFresh();
  return (
    <Doing
      label="Enrol an agent"
      title="Enrol an agent"
      what={
        <p>You get lines to paste on its machine: they fetch the agent from this service, check it and start it.</p>
      }
      act="Give me the lines"
      beside={["/name", "/host", "/offers"]}
      fields={(refused) => (
        <>
          <TextField label="Name" at="/name" refused={refused} value={name} onType={setName} />
          <TextField
            label="Host"
            about="that it deploys onto; empty: it runs stages alone"
            at="/host"
            refused={refused}
            value={host}
            onType={setHost}
          />
          <TextField
            label="Offers"
            about="what stages may want, such as jdk25; parted by commas"
            at="/offers"
            refused={refused}
            value={offers}
            onType={setOffers}
          />
          <label className="flag">
            <input type="checkbox" checked={untrusted} onChange={(event) => setUntrusted(event.target.checked)} />
            It also takes stages of branches that are not trusted
          </label>
        </>
      )}
      onAct={async () => {
        const made = await need(
          api.POST("/api/v1/agents", {
            body: { name, host: host.trim() || undefined, offers: listed(offers), untrusted },
          }),
        );
        await fresh();
        return (
          <Once
            words={`On the machine of ${made.name}, within an hour. It appears here once it has called.`}
            value={made.lines.join("\n")}
          />
        );
      }}
    />
  );
}
