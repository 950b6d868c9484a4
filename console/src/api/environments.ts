import { queryOptions } from "@tanstack/react-query";
import { api, need } from "./client";

export const environmentDifferences = (name: string, other: string) =>
  queryOptions({
    queryKey: ["environment", name, "differences", other],
    queryFn: () =>
      need(api.GET("/api/v1/environments/{name}/differences", { params: { path: { name }, query: { other } } })),
  });

export const environmentsFile = () =>
  queryOptions({
    queryKey: ["environments-file"],
    queryFn: () => need(api.GET("/api/v1/environments/file")),
    staleTime: Infinity,
  });

export const environmentCopy = (name: string, as: string) =>
  queryOptions({
    queryKey: ["environments-file", "copy", name, as],
    queryFn: () => need(api.GET("/api/v1/environments/{name}/copy", { params: { path: { name }, query: { as } } })),
    staleTime: Infinity,
  });

export const environmentsSchema = () =>
  queryOptions({
    queryKey: ["environments-schema"],
    queryFn: async () => (await fetch("/api/v1/environments-schema")).json() as Promise<unknown>,
    staleTime: Infinity,
  });

export const environmentRules = (name: string) =>
  queryOptions({
    queryKey: ["environment", name, "rules"],
    queryFn: () => need(api.GET("/api/v1/environments/{name}/rules", { params: { path: { name } } })),
  });

export const rulesHistory = (name: string) =>
  queryOptions({
    queryKey: ["environment", name, "history"],
    queryFn: () => need(api.GET("/api/v1/environments/{name}/rules/history", { params: { path: { name } } })),
  });

/** Who may change anything there; of one component, or of all of them. */
export const environmentPeople = (name: string, component?: string) =>
  queryOptions({
    queryKey: ["environment", name, "people", component],
    queryFn: () =>
      need(
        api.GET("/api/v1/environments/{name}/people", {
          params: { path: { name }, query: component ? { component } : {} },
        }),
      ),
  });

export const environmentCalendar = (name: string) =>
  queryOptions({
    queryKey: ["environment", name, "calendar"],
    queryFn: () => need(api.GET("/api/v1/environments/{name}/calendar", { params: { path: { name } } })),
  });
