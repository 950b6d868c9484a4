import { queryOptions } from "@tanstack/react-query";
import { api, need } from "./client";

/** Every question the pages ask, under the keys by which live events make them fresh again. */
export const me = () => queryOptions({ queryKey: ["me"], queryFn: () => need(api.GET("/api/v1/session")), staleTime: 60_000 });

export const whereabouts = () => queryOptions({ queryKey: ["whereabouts"], queryFn: () => need(api.GET("/api/v1/whereabouts")) });

export const agents = () => queryOptions({ queryKey: ["agents"], queryFn: () => need(api.GET("/api/v1/agents")), refetchInterval: 30_000 });

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

export const taskLog = (id: number, work: number) =>
  queryOptions({
    queryKey: ["deployment", id, "log", work],
    queryFn: () => need(api.GET("/api/v1/deployments/{id}/tasks/{work}/log", { params: { path: { id, work } } })),
  });

export const componentRuns = (component: string) =>
  queryOptions({
    queryKey: ["runs", component],
    queryFn: () => need(api.GET("/api/v1/components/{component}/runs", { params: { path: { component }, query: { limit: 8 } } })),
  });

export const pushes = (name: string) =>
  queryOptions({
    queryKey: ["pushes", name],
    queryFn: () => need(api.GET("/api/v1/components/{name}/pushes", { params: { path: { name } } })),
  });
