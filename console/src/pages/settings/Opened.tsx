import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useFresh, useMay } from "../../api/may";
import { api, need, type Schemas } from "../../api/client";
import { Ask } from "../../design/Ask";
import { Doing } from "../../design/Doing";
import { TextField } from "../../design/form";
import { None, Sentence, Sheet, ToComponent } from "./parts";
import { components, grants, secrets } from "./queries";

type View = Schemas["ComponentView"];

/** What a component's file may use: other components, and secrets. */
export function Opened({ view, registers }: { view: View; registers: boolean }) {
  const granted = useQuery(grants(view.name));
  const may = useMay();
  const fresh = useFresh();
  return (
    <Sheet
      title="Opened to it"
      about="Whose artifacts and pieces its pipeline file may take, and which secrets its stages may see."
      acts={
        <>
          {registers && <OpenSource view={view} />}
          {may("SET_SECRET", { component: view.name }) && <Grant name={view.name} />}
        </>
      }
    >
      {view.sources.length + (granted.data?.length ?? 0) === 0 && <None>Nothing is opened to it.</None>}
      {view.sources.map((source) => (
        <Sentence
          key={source.name}
          change={
            registers && (
              <Ask
                small
                label="Shut"
                title={`Shut ${source.name} to ${view.name}`}
                what={<p>Its next run that takes from {source.name} is refused, and says why. What it took stays.</p>}
                act="Shut it"
                reason=""
                onAct={async () => {
                  await need(
                    api.DELETE("/api/v1/components/{name}/sources/{source}", {
                      params: { path: { name: view.name, source: source.name } },
                    }),
                  );
                  await fresh();
                }}
              />
            )
          }
        >
          <ToComponent name={source.name} />, to {source.allBranches ? "all branches" : "trusted branches"}
        </Sentence>
      ))}
      {granted.data?.map((secret) => (
        <Sentence
          key={secret}
          change={
            may("SET_SECRET", { component: view.name }) && (
              <Ask
                small
                label="Take away"
                title={`Take ${secret} from ${view.name}`}
                what={<p>Stages that name it are refused from the next run on, and say why. Its value stays.</p>}
                act="Take it away"
                reason=""
                onAct={async () => {
                  await need(
                    api.DELETE("/api/v1/components/{component}/grants/{secret}", {
                      params: { path: { component: view.name, secret } },
                    }),
                  );
                  await fresh();
                }}
              />
            )
          }
        >
          the secret <code>{secret}</code>
        </Sentence>
      ))}
    </Sheet>
  );
}

function OpenSource({ view }: { view: View }) {
  const [name, setName] = useState("");
  const [allBranches, setAllBranches] = useState(false);
  const known = useQuery(components());
  const fresh = useFresh();
  const there = view.sources.map((each) => each.name);
  return (
    <Doing
      label="Open a component"
      title={`Open a component to ${view.name}`}
      what={<p>Stages of {view.name} may take its artifacts, and its file may be like its pieces.</p>}
      act="Open it"
      beside={["/name"]}
      fields={(refused) => (
        <>
          <TextField
            label="Component"
            at="/name"
            refused={refused}
            value={name}
            onType={setName}
            names={known.data?.map((each) => each.name).filter((each) => !there.includes(each)) ?? []}
          />
          <label className="flag">
            <input type="checkbox" checked={allBranches} onChange={(event) => setAllBranches(event.target.checked)} />
            To all branches, not to trusted ones alone
          </label>
        </>
      )}
      onAct={async () => {
        await need(
          api.PUT("/api/v1/components/{name}/sources", {
            params: { path: { name: view.name } },
            body: { name: name.trim(), allBranches },
          }),
        );
        await fresh();
        return undefined;
      }}
    />
  );
}

function Grant({ name }: { name: string }) {
  const [secret, setSecret] = useState("");
  const known = useQuery(secrets());
  const fresh = useFresh();
  return (
    <Doing
      label="Give a secret"
      title={`Give ${name} a secret`}
      what={<p>Stages of trusted branches that name it see its value. Who changes the file can read it there.</p>}
      act="Give it"
      beside={["/secret"]}
      fields={(refused) => (
        <TextField
          label="Secret"
          at="/secret"
          refused={refused}
          value={secret}
          onType={setSecret}
          names={[...new Set(known.data?.map((each) => each.name) ?? [])]}
        />
      )}
      onAct={async () => {
        if (secret.trim() === "") throw new Error("Say which secret.");
        await need(
          api.PUT("/api/v1/components/{component}/grants/{secret}", {
            params: { path: { component: name, secret: secret.trim() } },
          }),
        );
        await fresh();
        return undefined;
      }}
    />
  );
}

const ABOUT = {
  labels: "Whereabouts are grouped by them, such as team=wardens. A line each, at most 20.",
  links: "Dashboards, the runbook: Title=https://… A line each.",
};

/** Labels or links: what stands here replaces what was. */
export function Pairs({ view, what, registers }: { view: View; what: "labels" | "links"; registers: boolean }) {
  const now: [string, string][] =
    what === "labels" ? Object.entries(view.labels) : view.links.map((link) => [link.title, link.address]);
  const [text, setText] = useState(now.map(([name, value]) => `${name}=${value}`).join("\n"));
  const fresh = useFresh();
  const title = what.charAt(0).toUpperCase() + what.slice(1);
  return (
    <Sheet
      title={title}
      about={ABOUT[what]}
      acts={
        registers && (
          <Doing
            label="Change"
            title={`${title} of ${view.name}`}
            what={<p>{ABOUT[what]} What stands here replaces what was.</p>}
            act="Change them"
            fields={(refused) => (
              <TextField label={title} at="/" rows={5} refused={refused} value={text} onType={setText} />
            )}
            onAct={async () => {
              const body = pairsOf(text);
              const params = { params: { path: { name: view.name } }, body };
              await need(
                what === "labels"
                  ? api.PUT("/api/v1/components/{name}/labels", params)
                  : api.PUT("/api/v1/components/{name}/links", params),
              );
              await fresh();
              return undefined;
            }}
          />
        )
      }
    >
      {now.length === 0 && <None>None yet.</None>}
      {now.map(([name, value]) => (
        <Sentence key={name}>
          {name} <b>{value}</b>
        </Sentence>
      ))}
    </Sheet>
  );
}

/** Names with values, a line each; a line without = is refused. */
export function pairsOf(text: string): Record<string, string> {
  return Object.fromEntries(
    text
      .split("\n")
      .map((line) => line.trim())
      .filter((line) => line !== "")
      .map((line) => {
        const at = line.indexOf("=");
        if (at < 1) throw new Error(`“${line}” should be NAME=VALUE, a line each`);
        return [line.slice(0, at).trim(), line.slice(at + 1).trim()];
      }),
  );
}
