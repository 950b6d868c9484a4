import { queryOptions } from "@tanstack/react-query";
import { api, need } from "./client";

export const pieces = (name: string) =>
  queryOptions({
    queryKey: ["component", name, "pieces"],
    queryFn: () => need(api.GET("/api/v1/components/{name}/pieces", { params: { path: { name } } })),
  });

/** What a component's pipeline file can name. */
export const namesAtHand = (name: string) =>
  queryOptions({
    queryKey: ["component", name, "names"],
    queryFn: () => need(api.GET("/api/v1/components/{name}/pipeline/names", { params: { path: { name } } })),
  });

export const pieceUsers = (name: string) =>
  queryOptions({
    queryKey: ["component", name, "pieces", "users"],
    queryFn: () => need(api.GET("/api/v1/components/{name}/pieces/users", { params: { path: { name } } })),
  });

export const componentRuns = (component: string, limit: number) =>
  queryOptions({
    queryKey: ["runs", component, limit],
    queryFn: async () => (await need(api.GET("/api/v1/runs", { params: { query: { component, limit } } }))).runs,
  });

export const triggerEvents = (name: string) =>
  queryOptions({
    queryKey: ["events", name],
    queryFn: () => need(api.GET("/api/v1/components/{name}/events", { params: { path: { name } } })),
  });

export const stores = (name: string) =>
  queryOptions({
    queryKey: ["stores", name],
    queryFn: () => need(api.GET("/api/v1/components/{name}/stores", { params: { path: { name } } })),
  });

export const source = (name: string) =>
  queryOptions({
    queryKey: ["source", name],
    queryFn: () => need(api.GET("/api/v1/components/{name}/source", { params: { path: { name } } })),
  });

export const component = (name: string) =>
  queryOptions({
    queryKey: ["component", name],
    queryFn: () => need(api.GET("/api/v1/components/{name}", { params: { path: { name } } })),
  });

export const badge = (name: string) =>
  queryOptions({
    queryKey: ["badge", name],
    queryFn: () => need(api.GET("/api/v1/components/{name}/badge", { params: { path: { name } } })),
    staleTime: Infinity,
  });

export const pipeline = (name: string, branch?: string) =>
  queryOptions({
    queryKey: ["pipeline", name, branch],
    queryFn: () =>
      need(api.GET("/api/v1/components/{name}/pipeline", { params: { path: { name }, query: { branch } } })),
    staleTime: Infinity,
  });

export const pipelineHistory = (name: string) =>
  queryOptions({
    queryKey: ["pipeline-history", name],
    queryFn: () => need(api.GET("/api/v1/components/{name}/pipeline/history", { params: { path: { name } } })),
  });

export const pipelineSchema = () =>
  queryOptions({
    queryKey: ["pipeline-schema"],
    queryFn: async () => (await fetch("/api/v1/pipeline-schema")).json() as Promise<unknown>,
    staleTime: Infinity,
  });
