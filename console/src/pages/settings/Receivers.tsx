import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { useFresh, useMay } from "../../api/may";
import { api, need } from "../../api/client";
import { Ask } from "../../design/Ask";
import { Doing } from "../../design/Doing";
import { TextField } from "../../design/form";
import { Loading, Trouble } from "../../design/parts";
import { At } from "../../design/time";
import { listed, None, Once, Rows, Sheet } from "./parts";
import { receivers } from "./queries";

/** Programs that are told of events. */
export default function Receivers() {
  const known = useQuery(receivers());
  const may = useMay();
  const fresh = useFresh();
  if (known.isPending) return <Loading />;
  if (known.isLoadingError) return <Trouble whole error={known.error} />;
  return (
    <>
      <title>Receivers · Settings · Paseo</title>
      <Sheet
        lead
        title="Receivers of events"
        about="Each is told by a signed POST (Standard Webhooks); what is not taken is sent again for a day."
        acts={may("TELL_OTHERS") && <NewReceiver />}
      >
        {known.data.length === 0 && <None>None. A chat, a board or a program of yours can be told what happens.</None>}
        {known.data.length > 0 && (
          <Rows head={["Receiver", "Is told of", "Of components", "Since", ""]}>
            {known.data.map((each) => (
              <tr key={each.name}>
                <td>
                  <Link to={`/settings/receivers/${each.name}`}>
                    <b>{each.name}</b>
                  </Link>
                  <div className="quiet [overflow-wrap:anywhere]">{each.address}</div>
                </td>
                <td>{each.kinds.join(", ") || "everything"}</td>
                <td>{each.components.join(", ") || "all"}</td>
                <td>
                  <At time={each.createdAt} />
                  {each.stoppedAt && (
                    <div className="warn">
                      stopped <At time={each.stoppedAt} />
                    </div>
                  )}
                </td>
                <td className="number">
                  {may("TELL_OTHERS") && !each.stoppedAt && (
                    <Ask
                      small
                      danger
                      label="Stop"
                      title={`Stop telling ${each.name}`}
                      what={<p>It is told nothing more. What it was told stays to be looked at.</p>}
                      act="Stop it"
                      reason=""
                      onAct={async () => {
                        await need(api.DELETE("/api/v1/receivers/{name}", { params: { path: { name: each.name } } }));
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

function NewReceiver() {
  const [name, setName] = useState("");
  const [address, setAddress] = useState("");
  const [kinds, setKinds] = useState("");
  const [of, setOf] = useState("");
  const fresh = useFresh();
  return (
    <Doing
      label="New receiver"
      title="Tell another of events"
      what={<p>It is told from now on. Its secret is shown once: with it the receiver checks who calls.</p>}
      act="Add it"
      beside={["/name", "/address", "/kinds", "/components"]}
      fields={(refused) => (
        <>
          <TextField label="Name" at="/name" refused={refused} value={name} onType={setName} />
          <TextField label="Address" at="/address" refused={refused} value={address} onType={setAddress} />
          <TextField
            label="Events"
            about="such as service.deployed, parted by commas; empty: all but audit.head, the heads of the audit trail"
            at="/kinds"
            refused={refused}
            value={kinds}
            onType={setKinds}
          />
          <TextField
            label="Components"
            about="parted by commas; empty: all"
            at="/components"
            refused={refused}
            value={of}
            onType={setOf}
          />
        </>
      )}
      onAct={async () => {
        const made = await need(
          api.POST("/api/v1/receivers", {
            body: { name, address, kinds: listed(kinds), components: listed(of) },
          }),
        );
        await fresh();
        return <Once words={`${name} checks signatures with it. It is not shown again.`} value={made.secret} />;
      }}
    />
  );
}
