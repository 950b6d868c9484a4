import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useParams } from "react-router";
import { useFresh, useMay } from "../../api/may";
import { api, need, type Schemas } from "../../api/client";
import { component as componentQuery } from "../../api/components";
import { Doing } from "../../design/Doing";
import { TextField } from "../../design/form";
import { Loading, Trouble } from "../../design/parts";
import { At } from "../../design/time";
import { Hook } from "./Hook";
import { Opened, Pairs } from "./Opened";
import { listed, Once, Sentence, Sheet } from "./parts";
import { BringBack, Retire } from "../../design/Retire";
import { Stores } from "./Stores";

type View = Schemas["ComponentView"];
type Change = Schemas["ComponentChange"];

/** Everything that is set of one component. */
export default function OneComponent() {
  const { name = "" } = useParams();
  const known = useQuery(componentQuery(name));
  const may = useMay();
  if (known.isPending) return <Loading />;
  if (known.isLoadingError) return <Trouble whole error={known.error} />;
  const view = known.data;
  const registers = may("REGISTER_COMPONENT", { component: name });
  return (
    <>
      <title>{`${name} · Settings · Paseo`}</title>
      <p className="m-0 mb-2 text-[13px]">
        <Link to="/settings/components">Components</Link>
      </p>
      <Sheet
        lead
        title={name}
        about={<About view={view} />}
        acts={
          registers &&
          (view.retired ? <BringBack what="component" name={name} /> : <Retire what="component" name={name} />)
        }
        history={name}
      >
        <Source view={view} registers={registers} />
      </Sheet>
      <Opened view={view} registers={registers} />
      <Pairs view={view} what="labels" registers={registers} />
      <Pairs view={view} what="links" registers={registers} />
      {view.repository && <Hook name={name} registers={registers} />}
      <Stores name={name} registers={registers} />
      {registers && <Publishing name={name} />}
    </>
  );
}

const About = ({ view }: { view: View }) => (
  <>
    <Link to={`/components/${view.name}`}>Its runs and events</Link>,{" "}
    <Link to={`/components/${view.name}/pipeline`}>its pipeline file</Link>,{" "}
    <Link to={`/components/${view.name}/address`}>where it runs</Link>,{" "}
    <Link to={`/settings/values?component=${view.name}`}>its variables and secrets</Link>. {view.kept.words}.
    {view.retired && (
      <span className="block text-warn">
        Retired <At time={view.retired} />.
      </span>
    )}
  </>
);

function Source({ view, registers }: { view: View; registers: boolean }) {
  const change = (field: Field, label: string, now: string, words: string) =>
    registers && <ChangeOne name={view.name} field={field} label={label} now={now} words={words} />;
  return (
    <>
      <Sentence change={change("name", "Name", view.name, "It is still reached by the name it had.")}>
        It is named <b>{view.name}</b>
        {view.formerNames.length > 0 && <>, formerly {view.formerNames.join(", ")}</>}.
      </Sentence>
      {view.repository && (
        <>
          <Sentence
            change={change("repository", "Repository", view.repository, "What was built from the one before stays.")}
          >
            It comes from <code>{view.repository}</code>.
          </Sentence>
          <Sentence change={registers && <Credentials name={view.name} />}>
            What opens the repository is kept sealed, and is not shown.
          </Sentence>
          <Sentence change={change("mainBranch", "Main branch", view.mainBranch, "Its pipeline file is in force.")}>
            Its main branch is <b>{view.mainBranch}</b>.
          </Sentence>
          <Sentence change={change("file", "File", view.file, "It is read at the next push.")}>
            Its pipeline file is <code>{view.file}</code>.
          </Sentence>
          <Sentence change={change("trusted", "Trusted branches", view.trusted.join(", "), TRUSTED)}>
            Trusted: <b>{view.trusted.join(", ") || "none"}</b>. Runs of these branches see secrets, and their versions
            walk.
          </Sentence>
          <Sentence change={change("allowed", "Allowed branches", view.allowed.join(", "), ALLOWED)}>
            Runs start of {view.allowed.length === 0 ? "no other branch" : <b>{view.allowed.join(", ")}</b>}, too,
            without secrets.
          </Sentence>
        </>
      )}
    </>
  );
}

const TRUSTED = "Names or patterns such as season/*, parted by commas.";
const ALLOWED = "Names or patterns, parted by commas; empty: no other branch.";

type Field = "name" | "repository" | "file" | "mainBranch" | "trusted" | "allowed";

interface ChangeOneProps {
  name: string;
  field: Field;
  label: string;
  now: string;
  words: string;
}

function ChangeOne({ name, field, label, now, words }: ChangeOneProps) {
  const [text, setText] = useState(now);
  const fresh = useFresh();
  const body = (): Change =>
    field === "trusted" || field === "allowed" ? { [field]: listed(text) } : { [field]: text.trim() };
  return (
    <Doing
      small
      label="Change"
      title={`${label} of ${name}`}
      what={<p>{words}</p>}
      act="Change it"
      beside={[`/${field}`]}
      fields={(refused) => <TextField label={label} at={`/${field}`} refused={refused} value={text} onType={setText} />}
      onAct={async () => {
        const changed = await need(
          api.POST("/api/v1/components/{name}/changes", { params: { path: { name } }, body: body() }),
        );
        await fresh();
        if (changed.name !== name) window.location.assign(`/settings/components/${changed.name}`);
        return undefined;
      }}
    />
  );
}

function Credentials({ name }: { name: string }) {
  const [user, setUser] = useState("");
  const [password, setPassword] = useState("");
  const [key, setKey] = useState("");
  const [hostKeys, setHostKeys] = useState("");
  const fresh = useFresh();
  const given = (text: string) => text.trim() || undefined;
  return (
    <Doing
      small
      label="Change"
      title={`What opens the repository of ${name}`}
      what={
        <p>A name and password for HTTPS, or a private key with its host keys for SSH. It replaces what was there.</p>
      }
      act="Change it"
      beside={["/credentials"]}
      fields={(refused) => (
        <>
          <TextField label="Name" at="/credentials/name" refused={refused} value={user} onType={setUser} />
          <TextField
            label="Password"
            at="/credentials/password"
            secret
            refused={refused}
            value={password}
            onType={setPassword}
          />
          <TextField label="Private key" at="/credentials/key" rows={3} refused={refused} value={key} onType={setKey} />
          <TextField
            label="Host keys"
            at="/credentials/hostKeys"
            rows={2}
            refused={refused}
            value={hostKeys}
            onType={setHostKeys}
          />
        </>
      )}
      onAct={async () => {
        const credentials = {
          name: given(user),
          password: given(password),
          key: given(key),
          hostKeys: given(hostKeys),
        };
        await need(
          api.POST("/api/v1/components/{name}/changes", { params: { path: { name } }, body: { credentials } }),
        );
        setPassword("");
        setKey("");
        await fresh();
        return undefined;
      }}
    />
  );
}

/** A token with which versions that were built elsewhere are published. */
function Publishing({ name }: { name: string }) {
  const [description, setDescription] = useState("");
  const fresh = useFresh();
  return (
    <Sheet
      title="Published from elsewhere"
      about="A token that publishes versions of this component and does nothing else, for 90 days."
      acts={
        <Doing
          label="New token"
          title={`A token that publishes ${name}`}
          what={<p>It is shown once.</p>}
          act="Make it"
          beside={["/description"]}
          fields={(refused) => (
            <TextField label="For" at="/description" refused={refused} value={description} onType={setDescription} />
          )}
          onAct={async () => {
            const made = await need(
              api.POST("/api/v1/components/{name}/tokens", { params: { path: { name } }, body: { description } }),
            );
            await fresh();
            return <Once words={`paseo publish ${name} VERSION FILE, with this as PASEO_TOKEN:`} value={made.token} />;
          }}
        />
      }
    />
  );
}
