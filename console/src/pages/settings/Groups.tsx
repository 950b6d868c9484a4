import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useFresh, useMay } from "../../api/may";
import { api, need, type Schemas } from "../../api/client";
import { Ask } from "../../design/Ask";
import { accounts } from "../../api/queries";
import { Doing } from "../../design/Doing";
import { TextField } from "../../design/form";
import { Loading, Trouble } from "../../design/parts";
import { ROLES } from "./Accounts";
import { listed, Narrowed, None, Sentence, Sheet } from "./parts";
import { groups } from "./queries";

type View = Schemas["GroupView"];

/** Who is asked at gates together, and what being in a group lets one do. */
export default function Groups() {
  const known = useQuery(groups());
  const may = useMay();
  if (known.isPending) return <Loading />;
  if (known.isLoadingError) return <Trouble whole error={known.error} />;
  return (
    <>
      <title>Groups · Settings · Paseo</title>
      <div className="mb-4 flex items-center gap-4">
        <h1 className="m-0 grow">Groups</h1>
        {may("MANAGE_ACCOUNTS") && <Add label="New group" group="" members={[]} />}
      </div>
      {known.data.length === 0 && <None>None yet. A gate asks a group; whoever is in it may decide.</None>}
      <Narrowed of={known.data} what="groups" by={(group) => [group.name, ...group.members].join(" ")}>
        {(shown) => shown.map((group) => <OneGroup key={group.name} view={group} manages={may("MANAGE_ACCOUNTS")} />)}
      </Narrowed>
    </>
  );
}

function OneGroup({ view, manages }: { view: View; manages: boolean }) {
  const fresh = useFresh();
  return (
    <Sheet
      title={view.name}
      acts={manages && <Add label="Add somebody" group={view.name} members={view.members} />}
      history={view.name}
    >
      <Sentence change={manages && <Roles view={view} />}>
        Being in it gives {view.roles.length > 0 ? <b>{view.roles.join(", ")}</b> : "no role"}.
      </Sentence>
      {view.members.length === 0 && <Sentence>Nobody is in it: a gate that asks it stays closed.</Sentence>}
      {view.members.map((name) => (
        <Sentence
          key={name}
          change={
            manages && (
              <Ask
                small
                label="Take out"
                title={`Take ${name} out of ${view.name}`}
                what={
                  <p>
                    No gate asks {name} as one of {view.name} any more. What {name} decided stays.
                  </p>
                }
                act="Take out"
                reason=""
                onAct={async () => {
                  await need(
                    api.DELETE("/api/v1/groups/{group}/members/{name}", {
                      params: { path: { group: view.name, name } },
                    }),
                  );
                  await fresh();
                }}
              />
            )
          }
        >
          {name}
        </Sentence>
      ))}
    </Sheet>
  );
}

function Roles({ view }: { view: View }) {
  const [text, setText] = useState(view.roles.join(", "));
  const fresh = useFresh();
  return (
    <Doing
      small
      label="Change"
      title={`The roles of ${view.name}`}
      what={<p>Each of its {view.members.length} members has them at once.</p>}
      act="Change them"
      beside={["/roles"]}
      fields={(refused) => (
        <TextField label="Roles" about={ROLES} at="/roles" refused={refused} value={text} onType={setText} />
      )}
      onAct={async () => {
        await need(
          api.PUT("/api/v1/groups/{group}", {
            params: { path: { group: view.name } },
            body: { roles: listed(text) },
          }),
        );
        await fresh();
        return undefined;
      }}
    />
  );
}

function Add({ label, group, members }: { label: string; group: string; members: string[] }) {
  const [into, setInto] = useState(group);
  const [name, setName] = useState("");
  const known = useQuery(accounts());
  const fresh = useFresh();
  return (
    <Doing
      label={label}
      title={group ? `Add somebody to ${group}` : "Make a group"}
      what={<p>{group ? "Gates that ask the group ask them too, at once." : "A group is made by its first member."}</p>}
      act="Add"
      beside={["/group", "/name"]}
      fields={(refused) => (
        <>
          {!group && <TextField label="Group" at="/group" refused={refused} value={into} onType={setInto} />}
          <TextField
            label="Account"
            at="/name"
            refused={refused}
            value={name}
            onType={setName}
            names={known.data?.map((each) => each.name).filter((each) => !members.includes(each)) ?? []}
          />
        </>
      )}
      onAct={async () => {
        const path = { group: into.trim(), name: name.trim() };
        if (path.group === "" || path.name === "") throw new Error("Say which group, and which account.");
        await need(api.PUT("/api/v1/groups/{group}/members/{name}", { params: { path } }));
        setName("");
        await fresh();
        return undefined;
      }}
    />
  );
}
