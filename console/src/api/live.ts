import { useQueryClient, type QueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";

/** Which questions an event of each kind makes old. */
const OLD: Record<string, string[]> = {
  run: ["run", "runs", "whereabouts"],
  step: ["run", "deployment"],
  push: ["pushes", "runs"],
  version: ["version", "whereabouts"],
  deployment: ["deployment", "version", "whereabouts"],
  whereabouts: ["whereabouts", "version", "deployment"],
  environment: ["whereabouts", "deployment"],
  component: ["whereabouts"],
  agent: ["agents"],
};

/** Makes questions old at most every so often, so that a burst of events costs one look each. */
function gather(client: QueryClient) {
  const due = new Set<string>();
  let timer: ReturnType<typeof setTimeout> | undefined;
  return (kind: string) => {
    (OLD[kind] ?? []).forEach((key) => due.add(key));
    timer ??= setTimeout(() => {
      timer = undefined;
      due.forEach((key) => void client.invalidateQueries({ queryKey: [key] }));
      due.clear();
    }, 60);
  };
}

/** Keeps every page live. True while the connection stands. */
export function useLive(): boolean {
  const client = useQueryClient();
  const [connected, setConnected] = useState(true);
  useEffect(() => {
    const old = gather(client);
    const source = new EventSource("/api/v1/events");
    let lost = false;
    source.onopen = () => {
      setConnected(true);
      if (lost) void client.invalidateQueries();
      lost = false;
    };
    source.onerror = () => {
      lost = true;
      setConnected(false);
    };
    source.addEventListener("changed", (event) => old((JSON.parse(event.data) as { kind: string }).kind));
    return () => source.close();
  }, [client]);
  return connected;
}
