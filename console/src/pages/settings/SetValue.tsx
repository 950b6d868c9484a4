import { useState } from "react";
import { useFresh } from "../../api/may";
import { api, need } from "../../api/client";
import { Doing } from "../../design/Doing";
import { TextField } from "../../design/form";

interface OneOfProps {
  label: string;
  value: string;
  of: [value: string, word: string][];
  onChoose: (value: string) => void;
}

const OneOf = ({ label, value, of, onChoose }: OneOfProps) => (
  <label>
    <b>{label}</b>
    <select value={value} onChange={(event) => onChoose(event.target.value)}>
      {of.map(([each, word]) => (
        <option key={each} value={each}>
          {word}
        </option>
      ))}
    </select>
  </label>
);

interface VariableProps {
  component: string;
  environments: string[];
  /** Those of each environment. */
  hosts: string[][];
}

/** A variable of a place, or of one host of it; without a value it is taken away. */
export function SetVariable({ component, environments, hosts }: VariableProps) {
  const [environment, setEnvironment] = useState(environments[0] ?? "");
  const [host, setHost] = useState("");
  const [name, setName] = useState("");
  const [value, setValue] = useState("");
  const fresh = useFresh();
  const there = hosts[environments.indexOf(environment)] ?? [];
  return (
    <Doing
      label="Set a variable"
      title={`A variable of ${component}`}
      what={<p>It holds from the next deployment or a redeploy on: what is live keeps what it was deployed with.</p>}
      act={value === "" ? "Take it away" : "Set it"}
      beside={["/name", "/value"]}
      fields={(refused) => (
        <>
          <OneOf
            label="Environment"
            value={environment}
            of={environments.map((each) => [each, each])}
            onChoose={(chosen) => {
              setEnvironment(chosen);
              setHost("");
            }}
          />
          <OneOf
            label="Host"
            value={host}
            of={[["", "all hosts"], ...there.map((each): [string, string] => [each, each])]}
            onChoose={setHost}
          />
          <TextField label="Name" at="/name" refused={refused} value={name} onType={setName} />
          <TextField
            label="Value"
            about="empty: the variable is taken away"
            at="/value"
            refused={refused}
            value={value}
            onType={setValue}
          />
        </>
      )}
      onAct={async () => {
        await need(
          api.PUT("/api/v1/places/{component}/{environment}/variables", {
            params: { path: { component, environment } },
            body: { name, value: value === "" ? undefined : value, host: host || undefined },
          }),
        );
        setValue("");
        await fresh();
        return undefined;
      }}
    />
  );
}

interface SecretProps {
  component: string;
  environments: string[];
  named: string[];
}

/** A new revision of a secret, for as much as is said. */
export function SetSecret({ component, environments, named }: SecretProps) {
  const [name, setName] = useState("");
  const [value, setValue] = useState("");
  const [of, setOf] = useState(component);
  const [environment, setEnvironment] = useState("");
  const [host, setHost] = useState("");
  const fresh = useFresh();
  return (
    <Doing
      label="Set a secret"
      title="Set a secret"
      what={
        <p>
          Its value is kept sealed and is never shown again; logs have dots in its place. It holds from the next
          deployment or run on.
        </p>
      }
      act="Set it"
      beside={["/name", "/value", "/host"]}
      fields={(refused) => (
        <>
          <TextField label="Name" at="/name" refused={refused} value={name} onType={setName} names={named} />
          <TextField label="Value" at="/value" secret refused={refused} value={value} onType={setValue} />
          <OneOf
            label="For"
            value={of}
            of={[
              [component, `${component} alone`],
              ["", "every component"],
            ]}
            onChoose={setOf}
          />
          <OneOf
            label="In"
            value={environment}
            of={[["", "all environments"], ...environments.map((each): [string, string] => [each, each])]}
            onChoose={setEnvironment}
          />
          {of !== "" && environment !== "" && (
            <TextField
              label="On"
              about="one host alone; empty: all of them"
              at="/host"
              refused={refused}
              value={host}
              onType={setHost}
            />
          )}
        </>
      )}
      onAct={async () => {
        await need(
          api.PUT("/api/v1/secrets", {
            body: {
              name,
              value,
              component: of || undefined,
              environment: environment || undefined,
              host: (of && environment && host.trim()) || undefined,
            },
          }),
        );
        setValue("");
        await fresh();
        return undefined;
      }}
    />
  );
}
