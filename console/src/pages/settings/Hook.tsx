import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useFresh } from "../../api/may";
import { api, need } from "../../api/client";
import { triggerEvents } from "../../api/components";
import { Doing } from "../../design/Doing";
import { TextField } from "../../design/form";
import { At } from "../../design/time";
import { None, Once, Sentence, Sheet } from "./parts";

/** How a repository tells that something was pushed, and what it told last. */
export function Hook({ name, registers }: { name: string; registers: boolean }) {
  const events = useQuery(triggerEvents(name));
  const fresh = useFresh();
  const params = { params: { path: { name } } };
  return (
    <Sheet
      title="Hook"
      about="Pushes are noticed when the service looks at the repository, or at once where the repository tells it."
      acts={
        registers && (
          <>
            <Doing
              label="Look now"
              title={`Look at the repository of ${name}`}
              what={<p>Reads its branches now, as at a hook. A push that was not noticed starts what it should.</p>}
              act="Look"
              onAct={async () => {
                const found = await need(api.POST("/api/v1/components/{name}/look", params));
                await fresh();
                return <p>{found.said}</p>;
              }}
            />
            <Doing
              label="The script"
              title={`A hook for ${name}`}
              what={
                <p>A script that a repository runs after each push. It has a secret in it: whoever has it can call.</p>
              }
              act="Show it"
              onAct={async () => {
                const script = await need(api.GET("/api/v1/components/{name}/hook", { ...params, parseAs: "text" }));
                return <Once words="As hooks/post-receive of the repository, executable:" value={script} />;
              }}
            />
            <Mapping name={name} />
          </>
        )
      }
    >
      {events.data?.length === 0 && <None>Nothing has come yet.</None>}
      {events.data?.slice(0, 3).map((event) => (
        <Sentence key={event.id}>
          <At time={event.at} /> {event.sentence}, by {event.by}
          {event.reason && <span className="text-ink-2">; {event.reason}</span>}
        </Sentence>
      ))}
    </Sheet>
  );
}

/** How hooks of another form are read. */
function Mapping({ name }: { name: string }) {
  const [scheme, setScheme] = useState<"hmac-sha256" | "shared-word">("hmac-sha256");
  const [header, setHeader] = useState("");
  const [prefix, setPrefix] = useState("");
  const [delivery, setDelivery] = useState("");
  const [pusher, setPusher] = useState("");
  const [secret, setSecret] = useState("");
  const fresh = useFresh();
  const given = (text: string) => text.trim() || undefined;
  return (
    <Doing
      label="Another form"
      title={`Hooks of another form for ${name}`}
      what={
        <p>
          For what calls <code>/hooks/v1/mapped/{name}</code> with a form of its own: where its proof stands, and which
          headers say what came.
        </p>
      }
      act="Set it"
      beside={["/header", "/prefix", "/delivery", "/pusher", "/secret"]}
      fields={(refused) => (
        <>
          <label>
            <b>Proof</b>
            <select value={scheme} onChange={(event) => setScheme(event.target.value as typeof scheme)}>
              <option value="hmac-sha256">HMAC with SHA-256 over the body</option>
              <option value="shared-word">a word that both know</option>
            </select>
          </label>
          <TextField label="Header with it" at="/header" refused={refused} value={header} onType={setHeader} />
          <TextField
            label="Before it"
            about="such as sha256=; empty: nothing"
            at="/prefix"
            refused={refused}
            value={prefix}
            onType={setPrefix}
          />
          <TextField
            label="Header of the delivery"
            about="so that one that comes twice counts once"
            at="/delivery"
            refused={refused}
            value={delivery}
            onType={setDelivery}
          />
          <TextField
            label="Where the pusher stands"
            about="a JSON pointer into the body"
            at="/pusher"
            refused={refused}
            value={pusher}
            onType={setPusher}
          />
          <TextField label="Secret" at="/secret" secret refused={refused} value={secret} onType={setSecret} />
        </>
      )}
      onAct={async () => {
        await need(
          api.PUT("/api/v1/components/{name}/hook-mapping", {
            params: { path: { name } },
            body: {
              header: header.trim(),
              scheme,
              prefix: given(prefix),
              delivery: given(delivery),
              pusher: given(pusher),
              secret,
            },
          }),
        );
        setSecret("");
        await fresh();
        return undefined;
      }}
    />
  );
}
