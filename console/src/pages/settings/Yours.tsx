import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useFresh } from "../../api/may";
import { api, need } from "../../api/client";
import { me } from "../../api/queries";
import { Doing } from "../../design/Doing";
import { TextField } from "../../design/form";
import { Loading, Trouble } from "../../design/parts";
import { None, Sentence, Sheet } from "./parts";
import { Tokens } from "./Tokens";

const word = (action: string) => action.toLowerCase().replaceAll("_", "-");

/** What belongs to the person who is signed in. */
export default function Yours() {
  const who = useQuery(me());
  if (who.isPending) return <Loading />;
  if (who.isLoadingError) return <Trouble whole error={who.error} />;
  return (
    <>
      <title>Your settings · Paseo</title>
      <h1 className="mt-0">{who.data.name}</h1>
      <Sheet title="Password" about="Of this service. Whoever signs in by another service has none here.">
        <Sentence change={<Password />}>You sign in with a password.</Sentence>
      </Sheet>
      <Tokens name={who.data.name} yours />
      <Sheet title="What you may do">
        {who.data.may.length + who.data.there.length === 0 && (
          <None>Nothing yet: an administrator gives your account roles.</None>
        )}
        <p className="m-0">
          {who.data.may.map(word).join(", ")}
          {who.data.there.map((each) => (
            <span key={JSON.stringify(each)} className="block">
              {word(each.action)}
              {each.environment && ` in ${each.environment}`}
              {each.component && ` of ${each.component}`}
            </span>
          ))}
          {who.data.groups.length > 0 && <span className="text-ink-2">; in {who.data.groups.join(", ")}</span>}
        </p>
      </Sheet>
    </>
  );
}

function Password() {
  const [current, setCurrent] = useState("");
  const [password, setPassword] = useState("");
  const fresh = useFresh();
  return (
    <Doing
      small
      label="Change"
      title="Change your password"
      what={<p>Your other sessions end; your tokens stay.</p>}
      act="Change it"
      beside={["/current", "/password"]}
      fields={(refused) => (
        <>
          <TextField label="Now" at="/current" secret refused={refused} value={current} onType={setCurrent} />
          <TextField
            label="From now on"
            at="/password"
            secret
            refused={refused}
            value={password}
            onType={setPassword}
          />
        </>
      )}
      onAct={async () => {
        await need(api.PUT("/api/v1/password", { body: { current, password } }));
        setCurrent("");
        setPassword("");
        await fresh();
        return undefined;
      }}
    />
  );
}
