import { useQueryClient, type QueryClient, type QueryFilters } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { refreshRow } from "./queries";

/** Which questions an event of each kind makes old. */
const OLD: Record<string, string[]> = {
  run: ["run", "runs", "whereabouts", "chain", "consequences"],
  step: ["run", "deployment"],
  trigger: ["events", "runs", "component", "stores", "chain", "consequences"],
  version: ["version", "versions", "whereabouts"],
  deployment: [
    "deployment",
    "deployments",
    "version",
    "versions",
    "whereabouts",
    "consequences",
    "place",
    "previews",
    "waiting",
    "environment",
    "sets",
  ],
  passage: ["passage", "waiting", "version"],
  notices: ["notices", "waiting"],
  whereabouts: ["whereabouts", "version", "deployment", "chain", "consequences", "place", "previews"],
  preview: ["previews"],
  environment: ["whereabouts", "deployment", "place", "environment", "passage", "waiting"],
  component: ["whereabouts", "component"],
  set: ["sets"],
  deputy: ["deputies", "waiting"],
  agent: ["agents"],
  loosening: ["loosenings", "waiting"],
  asks: ["asks", "waiting"],
};

/** The questions of which events tell. */
const TOLD = new Set<unknown>(Object.values(OLD).flat());

interface Change {
  kind: string;
  subject: string;
}

const WHERE = "whereabouts";
const SOON = 60;
/** All components are asked for again at most so often, where they are more than one answer holds. */
const WHOLE = 5_000;
const MANY = 25;
const SINGLE = 5;

/** The one component that a change is about; undefined where it may be several. */
export function componentOf({ kind, subject }: Change): string | undefined {
  switch (kind) {
    case WHERE:
      return subject === "all" ? undefined : subject;
    case "version":
      return subject.split(" ")[0];
    case "run":
      return subject.split("#")[0];
    default:
      return undefined;
  }
}

/**
 * Asks again what is on the page. What is being asked for the first time just now may be answered as it was before: it
 * is asked once more when that is there.
 */
export function outdate(client: QueryClient, filters: QueryFilters = {}) {
  const first = client
    .getQueryCache()
    .findAll({ ...filters, fetchStatus: "fetching" })
    .filter((query) => query.state.data === undefined);
  void client.invalidateQueries(filters);
  first.forEach(
    (query) =>
      void query.promise?.then(
        () => client.invalidateQueries({ queryKey: query.queryKey, exact: true }),
        () => undefined,
      ),
  );
}

/** Makes questions old at most every so often, so that a burst of events costs one look each. */
function gather(client: QueryClient) {
  const due = new Set<string>();
  const components = new Set<string>();
  let timer: ReturnType<typeof setTimeout> | undefined;
  let later: ReturnType<typeof setTimeout> | undefined;
  let last = 0;
  const everywhere = () => {
    last = Date.now();
    later = undefined;
    outdate(client, { queryKey: [WHERE], exact: true });
  };
  const where = (whole: boolean) => {
    const known = client.getQueryData<{ rows: { component: string }[] }>([WHERE])?.rows;
    const single = !whole && components.size <= SINGLE;
    if (single && known && [...components].every((name) => known.some((row) => row.component === name))) {
      components.forEach((name) => void refreshRow(client, name).catch(everywhere));
    } else if (!known || known.length <= MANY) {
      everywhere();
    } else {
      later ??= setTimeout(everywhere, Math.max(0, last + WHOLE - Date.now()));
    }
    components.clear();
  };
  return (change: Change) => {
    const component = componentOf(change);
    for (const key of OLD[change.kind] ?? []) {
      if (key === WHERE && component) components.add(component);
      else due.add(key);
    }
    timer ??= setTimeout(() => {
      timer = undefined;
      const whole = due.delete(WHERE);
      due.forEach((key) => outdate(client, { queryKey: [key] }));
      due.clear();
      if (whole || components.size > 0) where(whole);
    }, SOON);
  };
}

/**
 * Of what happened between the page's first answers and the connection nobody told it. Whereabouts, which may be of a
 * thousand components, are left to what happens next.
 */
const anew = (client: QueryClient) =>
  outdate(client, { predicate: ({ queryKey }) => queryKey[0] !== WHERE && TOLD.has(queryKey[0]) });

/** After so many milliseconds a connection that was refused is tried again. */
const AGAIN = 5_000;

/** Whether the service has another console by now than the one that is open. */
async function isUpgraded(): Promise<boolean> {
  const mine = document.querySelector<HTMLScriptElement>("script[type=module][src]")?.getAttribute("src");
  const answer = await fetch("/", { headers: { Accept: "text/html" } }).catch(() => undefined);
  return !!mine && !!answer?.ok && !(await answer.text()).includes(mine);
}

/**
 * Keeps every page live. Connected while the connection stands. Only a page that is looked at holds one: a browser
 * has but a few for each service, and pages that are hidden, or kept for going back to, would use them up.
 */
export function useLive(may: boolean): { connected: boolean; upgraded: boolean } {
  const client = useQueryClient();
  const [connected, setConnected] = useState(true);
  const [upgraded, setUpgraded] = useState(false);
  useEffect(() => {
    if (!may) return;
    const old = gather(client);
    let source: EventSource | undefined;
    let again: ReturnType<typeof setTimeout> | undefined;
    let fresh = true;
    const close = () => {
      clearTimeout(again);
      source?.close();
      source = undefined;
      fresh = false;
    };
    const open = () => {
      if (source || document.hidden) return;
      source = new EventSource("/api/v1/events");
      source.onopen = () => {
        setConnected(true);
        if (fresh) {
          anew(client);
        } else {
          outdate(client);
          void isUpgraded().then(setUpgraded);
        }
        fresh = true;
      };
      source.onerror = () => {
        fresh = false;
        setConnected(false);
        // A browser tries again by itself where the connection broke, and not where it was refused: the session has
        // ended, or something before the service answers in its place.
        if (source?.readyState !== EventSource.CLOSED) return;
        close();
        void client.invalidateQueries({ queryKey: ["me"] });
        again = setTimeout(open, AGAIN);
      };
      source.addEventListener("signed-out", () => location.assign("/sign-in?because=disabled"));
      source.addEventListener("changed", (event) => old(JSON.parse(event.data) as Change));
    };
    const turn = () => (document.hidden ? close() : open());
    open();
    document.addEventListener("visibilitychange", turn);
    window.addEventListener("pagehide", close);
    window.addEventListener("pageshow", open);
    return () => {
      document.removeEventListener("visibilitychange", turn);
      window.removeEventListener("pagehide", close);
      window.removeEventListener("pageshow", open);
      close();
    };
  }, [client, may]);
  return { connected, upgraded };
}
