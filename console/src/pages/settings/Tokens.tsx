import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useFresh } from "../../api/may";
import { api, need } from "../../api/client";
import { Ask } from "../../design/Ask";
import { Doing } from "../../design/Doing";
import { TextField } from "../../design/form";
import { At } from "../../design/time";
import { listed, None, Once, Rows, Sheet } from "./parts";
import { tokens } from "./queries";

/** An account's tokens: what each may, how long, and when it was used last. */
export function Tokens({ name, yours }: { name: string; yours?: boolean }) {
  const known = useQuery(tokens(name));
  const fresh = useFresh();
  return (
    <Sheet
      title="Tokens"
      about="For scripts and for the client. A token is shown once, when it is made."
      acts={yours && <NewToken name={name} />}
    >
      {known.isError && <None>{known.error.message}</None>}
      {known.data?.length === 0 && <None>None.</None>}
      {known.data && known.data.length > 0 && (
        <Rows head={["For", "May", "Until", "Used last", ""]}>
          {known.data.map((token) => (
            <tr key={token.id}>
              <td>
                <b>{token.description}</b>
                {token.component && <div className="quiet">of {token.component} alone</div>}
              </td>
              <td>{token.may.length === 0 ? "what its account may" : token.may.join(", ")}</td>
              <td>
                <At time={token.until} />
              </td>
              <td>{token.lastUsed ? <At time={token.lastUsed} /> : "never"}</td>
              <td className="number">
                <Ask
                  small
                  danger
                  label="Revoke"
                  title={`Revoke the token for ${token.description}`}
                  what={<p>It is refused from now on. Whatever uses it stops.</p>}
                  act="Revoke it"
                  reason=""
                  onAct={async () => {
                    await need(
                      api.DELETE("/api/v1/accounts/{name}/tokens/{id}", { params: { path: { name, id: token.id } } }),
                    );
                    await fresh();
                  }}
                />
              </td>
            </tr>
          ))}
        </Rows>
      )}
    </Sheet>
  );
}

function NewToken({ name }: { name: string }) {
  const [description, setDescription] = useState("");
  const [may, setMay] = useState("");
  const [component, setComponent] = useState("");
  const [days, setDays] = useState("90");
  const fresh = useFresh();
  return (
    <Doing
      label="New token"
      title="Make a token"
      what={<p>It may do no more than you may, and less where you say so.</p>}
      act="Make it"
      beside={["/description", "/may", "/component", "/days"]}
      fields={(refused) => (
        <>
          <TextField label="For" at="/description" refused={refused} value={description} onType={setDescription} />
          <TextField
            label="May"
            about="actions parted by commas, such as start-run; empty: what you may"
            at="/may"
            refused={refused}
            value={may}
            onType={setMay}
          />
          <TextField
            label="Component"
            about="empty: all"
            at="/component"
            refused={refused}
            value={component}
            onType={setComponent}
          />
          <TextField label="Days" about="1 to 365" at="/days" refused={refused} value={days} onType={setDays} />
        </>
      )}
      onAct={async () => {
        const made = await need(
          api.POST("/api/v1/accounts/{name}/tokens", {
            params: { path: { name } },
            body: {
              description,
              may: may.trim() === "" ? undefined : listed(may),
              component: component.trim() || undefined,
              days: Number(days) || undefined,
            },
          }),
        );
        await fresh();
        return <Once words={`The token for ${description}. It is not shown again.`} value={made.token} />;
      }}
    />
  );
}
