import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { useState } from "react";
import { useFresh, useMay } from "../../api/may";
import { api, need } from "../../api/client";
import { accounts } from "../../api/queries";
import { Doing } from "../../design/Doing";
import { TextField } from "../../design/form";
import { Loading, Trouble } from "../../design/parts";
import { At } from "../../design/time";
import { listed, Narrowed, Once, Rows, Sheet } from "./parts";

/** Who can sign in, and as what. */
export default function Accounts() {
  const known = useQuery(accounts());
  const may = useMay();
  if (known.isPending) return <Loading />;
  if (known.isLoadingError) return <Trouble whole error={known.error} />;
  return (
    <>
      <title>Accounts · Settings · Paseo</title>
      <Sheet
        lead
        title="Accounts"
        about="A person, or a machine that acts in its own name. Roles say what one may; groups are asked at gates."
        acts={may("MANAGE_ACCOUNTS") && <NewAccount />}
      >
        <Narrowed
          of={known.data}
          what="accounts"
          by={(account) => [account.name, ...account.roles, ...account.byGroups, ...account.groups].join(" ")}
        >
          {(shown) => (
            <Rows head={["Name", "Roles", "Groups", "Signed in last", "Tokens"]}>
              {shown.map((account) => (
                <tr key={account.name}>
                  <td>
                    <Link to={`/settings/accounts/${account.name}`}>
                      <b>{account.name}</b>
                    </Link>
                    {account.disabled && <div className="bad">disabled: {account.disabled.reason}</div>}
                    {account.external && <div className="quiet">signs in by another service</div>}
                  </td>
                  <td>
                    {account.roles.join(", ") || "none"}
                    {account.byGroups.length > 0 && (
                      <div className="quiet">by groups: {account.byGroups.join(", ")}</div>
                    )}
                  </td>
                  <td>{account.groups.join(", ") || "none"}</td>
                  <td>{account.signedInAt ? <At time={account.signedInAt} /> : "never"}</td>
                  <td>{account.tokens}</td>
                </tr>
              ))}
            </Rows>
          )}
        </Narrowed>
      </Sheet>
    </>
  );
}

function NewAccount() {
  const [name, setName] = useState("");
  const [roles, setRoles] = useState("");
  const [groups, setGroups] = useState("");
  const [addresses, setAddresses] = useState("");
  const fresh = useFresh();
  return (
    <Doing
      label="New account"
      title="Add an account"
      what={<p>You get a code, good for a day, with which its owner sets a password.</p>}
      act="Add it"
      beside={["/name", "/roles", "/groups", "/addresses"]}
      fields={(refused) => (
        <>
          <TextField label="Name" at="/name" refused={refused} value={name} onType={setName} />
          <TextField label="Roles" about={ROLES} at="/roles" refused={refused} value={roles} onType={setRoles} />
          <TextField label="Groups" about={COMMAS} at="/groups" refused={refused} value={groups} onType={setGroups} />
          <TextField
            label="Addresses"
            about="of mail; commits and notices are sent with the first"
            at="/addresses"
            refused={refused}
            value={addresses}
            onType={setAddresses}
          />
        </>
      )}
      onAct={async () => {
        const made = await need(
          api.POST("/api/v1/accounts", {
            body: { name, roles: listed(roles), groups: listed(groups), addresses: listed(addresses) },
          }),
        );
        await fresh();
        return made.code && <Once words={`${name} sets a password with this code, within a day:`} value={made.code} />;
      }}
    />
  );
}

export const COMMAS = "parted by commas";
export const ROLES = "such as developer, release-engineer, administrator; parted by commas";
