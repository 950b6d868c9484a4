import { queryOptions, type QueryClient } from "@tanstack/react-query";
import { api, need, type Schemas } from "./client";

/** Every question the pages ask, under the keys by which live events make them fresh again. */
export const me = () =>
  queryOptions({ queryKey: ["me"], queryFn: () => need(api.GET("/api/v1/session")), staleTime: 60_000 });

/** The ways to sign in, and whether one is. */
export const signInWays = () =>
  queryOptions({ queryKey: ["sign-in-ways"], queryFn: () => need(api.GET("/api/v1/sign-in-ways")) });

/** Views of pages that were kept: one's own, and those for everybody. */
export const views = () => queryOptions({ queryKey: ["views"], queryFn: () => need(api.GET("/api/v1/views")) });

/** The newest run of each main branch, by component. */
export const newestRuns = () => queryOptions({ queryKey: ["runs", "newest"], queryFn: newestByComponent });

async function newestByComponent() {
  const found = new Map<string, Schemas["RunSummary"]>();
  for (let before: number | undefined, first = true; first || before; first = false) {
    const query = { newest: true, before, limit: 200 };
    const page = await need(api.GET("/api/v1/runs", { params: { query } }));
    page.runs.forEach((run) => found.set(run.component, run));
    before = page.next;
  }
  return found;
}

export const whereabouts = () =>
  queryOptions({ queryKey: ["whereabouts"], queryFn: ({ client }) => everywhere(client) });

/** The service answers so many components at a time; the first of them are shown while the others are on their way. */
async function everywhere(client: QueryClient) {
  const whole = await need(api.GET("/api/v1/whereabouts"));
  if (whole.next && !client.getQueryData(["whereabouts"]))
    client.setQueryData(["whereabouts"], { ...whole, rows: [...whole.rows] });
  for (let after = whole.next; after;) {
    const page = await need(api.GET("/api/v1/whereabouts", { params: { query: { after } } }));
    whole.rows.push(...page.rows);
    after = page.next;
  }
  return { ...whole, next: undefined };
}

/** Takes what is known of one component anew, without asking for all of them. */
export async function refreshRow(client: QueryClient, component: string) {
  const { rows } = await need(api.GET("/api/v1/whereabouts", { params: { query: { component } } }));
  client.setQueryData<Schemas["WhereaboutsView"]>(
    ["whereabouts"],
    (before) =>
      before && {
        ...before,
        rows: before.rows.map((row) => rows.find((each) => each.component === row.component) ?? row),
      },
  );
}

export const whereaboutsAt = (moment: string) =>
  queryOptions({ queryKey: ["whereabouts", "at", moment], queryFn: () => everywhereAt(moment) });

async function everywhereAt(moment: string) {
  const whole = await need(api.GET("/api/v1/whereabouts/at", { params: { query: { moment } } }));
  for (let after = whole.next; after;) {
    const page = await need(api.GET("/api/v1/whereabouts/at", { params: { query: { moment, after } } }));
    whole.places.push(...page.places);
    after = page.next;
  }
  return whole.places;
}

export const agents = () =>
  queryOptions({ queryKey: ["agents"], queryFn: () => need(api.GET("/api/v1/agents")), refetchInterval: 30_000 });

export const run = (component: string, number: number) =>
  queryOptions({
    queryKey: ["run", component, number],
    queryFn: () => need(api.GET("/api/v1/runs/{component}/{number}", { params: { path: { component, number } } })),
  });

export const version = (component: string, number: string) =>
  queryOptions({
    queryKey: ["version", component, number],
    queryFn: () => need(api.GET("/api/v1/versions/{component}/{number}", { params: { path: { component, number } } })),
  });

export const deployment = (id: number) =>
  queryOptions({
    queryKey: ["deployment", id],
    queryFn: () => need(api.GET("/api/v1/deployments/{id}", { params: { path: { id } } })),
  });

export const place = (component: string, environment: string) =>
  queryOptions({
    queryKey: ["place", component, environment],
    queryFn: () =>
      need(api.GET("/api/v1/places/{component}/{environment}", { params: { path: { component, environment } } })),
  });

export const history = (component: string, environment: string) =>
  queryOptions({
    queryKey: ["place", component, environment, "history"],
    queryFn: () =>
      need(api.GET("/api/v1/history/{component}/{environment}", { params: { path: { component, environment } } })),
  });

export const previews = () =>
  queryOptions({ queryKey: ["previews"], queryFn: () => need(api.GET("/api/v1/previews")) });

export const versions = (component: string) =>
  queryOptions({
    queryKey: ["version", component, "all"],
    queryFn: () => need(api.GET("/api/v1/versions/{component}", { params: { path: { component } } })),
  });

export const sets = () => queryOptions({ queryKey: ["sets"], queryFn: () => need(api.GET("/api/v1/sets")) });

export const oneSet = (name: string) =>
  queryOptions({
    queryKey: ["sets", name],
    queryFn: () => need(api.GET("/api/v1/sets/{name}", { params: { path: { name } } })),
  });

export const deputies = () =>
  queryOptions({ queryKey: ["deputies"], queryFn: () => need(api.GET("/api/v1/deputies")) });

export const chain = () => queryOptions({ queryKey: ["chain"], queryFn: () => need(api.GET("/api/v1/chain")) });

export const consequences = (name: string, id: number) =>
  queryOptions({
    queryKey: ["consequences", name, id],
    queryFn: () =>
      need(api.GET("/api/v1/components/{name}/events/{id}/consequences", { params: { path: { name, id } } })),
  });

export const evidence = (component: string, number: number) =>
  queryOptions({
    queryKey: ["run", component, number, "evidence"],
    queryFn: () =>
      need(api.GET("/api/v1/runs/{component}/{number}/evidence", { params: { path: { component, number } } })),
  });

export const comparison = (component: string, number: number, other: number) =>
  queryOptions({
    queryKey: ["run", component, number, "comparison", other],
    queryFn: () =>
      need(
        api.GET("/api/v1/runs/{component}/{number}/comparison", {
          params: { path: { component, number }, query: { with: other } },
        }),
      ),
  });

export const waiting = () => queryOptions({ queryKey: ["waiting"], queryFn: () => need(api.GET("/api/v1/waiting")) });

export const waitingCount = () =>
  queryOptions({ queryKey: ["waiting", "count"], queryFn: () => need(api.GET("/api/v1/waiting/count")) });

export const loosenings = () =>
  queryOptions({ queryKey: ["loosenings"], queryFn: () => need(api.GET("/api/v1/loosenings")) });

/** What whoever is signed in asked of others. */
export const asks = () => queryOptions({ queryKey: ["asks"], queryFn: () => need(api.GET("/api/v1/asks")) });

/** What is followed by whoever is signed in. */
export const following = () =>
  queryOptions({ queryKey: ["following"], queryFn: () => need(api.GET("/api/v1/following")), staleTime: 60_000 });

export const notices = () => queryOptions({ queryKey: ["notices"], queryFn: () => need(api.GET("/api/v1/notices")) });

export const noticeChoices = () =>
  queryOptions({ queryKey: ["notices", "choices"], queryFn: () => need(api.GET("/api/v1/notices/choices")) });

export const passage = (id: number) =>
  queryOptions({
    queryKey: ["passage", id],
    queryFn: () => need(api.GET("/api/v1/passages/{id}", { params: { path: { id } } })),
  });

export const accounts = () =>
  queryOptions({ queryKey: ["accounts"], queryFn: () => need(api.GET("/api/v1/accounts")) });

/** What differs between two versions of a component. */
export const versionComparison = (component: string, from: string, to: string) =>
  queryOptions({
    queryKey: ["comparison", component, from, to],
    staleTime: 60_000,
    queryFn: () =>
      need(
        api.GET("/api/v1/comparison/versions/{component}", {
          params: { path: { component }, query: { from, to } },
        }),
      ),
  });
