import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useFresh } from "../../api/may";
import { api, need } from "../../api/client";
import { stores } from "../../api/components";
import { Ask } from "../../design/Ask";
import { Doing } from "../../design/Doing";
import { TextField } from "../../design/form";
import { At } from "../../design/time";
import { None, Sentence, Sheet } from "./parts";

type Kind = "registry" | "maven" | "folder";

/** Where new versions are looked for that were built elsewhere. */
export function Stores({ name, registers }: { name: string; registers: boolean }) {
  const known = useQuery(stores(name));
  const fresh = useFresh();
  return (
    <Sheet
      title="Observed stores"
      about="Versions that appear there arrive by themselves, with their bytes."
      acts={registers && <Observe name={name} />}
    >
      {known.data?.length === 0 && <None>None.</None>}
      {known.data?.map((store) => (
        <Sentence
          key={store.id}
          change={
            registers && (
              <Ask
                small
                label="Stop"
                title={`Stop observing ${store.where.address}`}
                what={<p>Nothing arrives from it any more. Versions that arrived stay.</p>}
                act="Stop it"
                reason=""
                onAct={async () => {
                  await need(
                    api.DELETE("/api/v1/components/{name}/stores/{id}", { params: { path: { name, id: store.id } } }),
                  );
                  await fresh();
                }}
              />
            )
          }
        >
          {store.where.kind} <code>{store.where.address}</code> {store.where.name} <code>{store.where.pattern}</code>
          <span className="block text-[12px] text-ink-2">
            {store.error ? (
              <span className="bad">{store.error}</span>
            ) : store.lookedAt ? (
              <>
                looked at <At time={store.lookedAt} />, {store.sightings.length} seen
              </>
            ) : (
              "not looked at yet"
            )}
          </span>
        </Sentence>
      ))}
    </Sheet>
  );
}

function Observe({ name }: { name: string }) {
  const [kind, setKind] = useState<Kind>("folder");
  const [address, setAddress] = useState("");
  const [called, setCalled] = useState("");
  const [group, setGroup] = useState("");
  const [extension, setExtension] = useState("");
  const [pattern, setPattern] = useState("");
  const [login, setLogin] = useState("");
  const [existing, setExisting] = useState(false);
  const fresh = useFresh();
  const given = (text: string) => text.trim() || undefined;
  return (
    <Doing
      label="Observe a store"
      title={`Observe a store for ${name}`}
      what={<p>It is looked at again and again; what matches arrives as a version, once.</p>}
      act="Observe it"
      beside={["/address", "/name", "/group", "/extension", "/pattern", "/login"]}
      fields={(refused) => (
        <>
          <label>
            <b>Kind</b>
            <select value={kind} onChange={(event) => setKind(event.target.value as Kind)}>
              <option value="folder">a folder</option>
              <option value="maven">a Maven repository</option>
              <option value="registry">a container registry</option>
            </select>
          </label>
          <TextField label="Address" at="/address" refused={refused} value={address} onType={setAddress} />
          {kind !== "folder" && (
            <TextField label="Name there" at="/name" refused={refused} value={called} onType={setCalled} />
          )}
          {kind === "maven" && (
            <>
              <TextField label="Group" at="/group" refused={refused} value={group} onType={setGroup} />
              <TextField label="Extension" at="/extension" refused={refused} value={extension} onType={setExtension} />
            </>
          )}
          <TextField
            label="Pattern"
            about="of tags or versions; of a folder’s files, with {version} in it"
            at="/pattern"
            refused={refused}
            value={pattern}
            onType={setPattern}
          />
          {kind === "registry" && (
            <TextField
              label="Login"
              about="name and password with a colon between; empty: none"
              at="/login"
              secret
              refused={refused}
              value={login}
              onType={setLogin}
            />
          )}
          <label className="flag">
            <input type="checkbox" checked={existing} onChange={(event) => setExisting(event.target.checked)} />
            What is there already arrives, too
          </label>
        </>
      )}
      onAct={async () => {
        await need(
          api.POST("/api/v1/components/{name}/stores", {
            params: { path: { name } },
            body: {
              kind,
              address: address.trim(),
              name: given(called),
              group: given(group),
              extension: given(extension),
              pattern: pattern.trim(),
              existing,
              login: given(login),
            },
          }),
        );
        await fresh();
        return undefined;
      }}
    />
  );
}
