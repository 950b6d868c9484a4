import { queryOptions } from "@tanstack/react-query";
import { api, need } from "../../api/client";

export const trail = (subject: string) =>
  queryOptions({
    queryKey: ["audit", subject],
    queryFn: () => need(api.GET("/api/v1/audit", { params: { query: { subject, limit: 8 } } })),
  });

export const groups = () => queryOptions({ queryKey: ["groups"], queryFn: () => need(api.GET("/api/v1/groups")) });

export const tokens = (name: string) =>
  queryOptions({
    queryKey: ["accounts", name, "tokens"],
    queryFn: () => need(api.GET("/api/v1/accounts/{name}/tokens", { params: { path: { name } } })),
  });

export const hosts = () => queryOptions({ queryKey: ["hosts"], queryFn: () => need(api.GET("/api/v1/hosts")) });

export const components = () =>
  queryOptions({ queryKey: ["components"], queryFn: () => need(api.GET("/api/v1/components")) });

export const retired = () =>
  queryOptions({ queryKey: ["retired"], queryFn: () => need(api.GET("/api/v1/retirements")) });

export const secrets = () => queryOptions({ queryKey: ["secrets"], queryFn: () => need(api.GET("/api/v1/secrets")) });

export const grants = (component: string) =>
  queryOptions({
    queryKey: ["component", component, "grants"],
    queryFn: () => need(api.GET("/api/v1/components/{component}/grants", { params: { path: { component } } })),
  });

export const placeSettings = (component: string, environment: string) =>
  queryOptions({
    queryKey: ["place", component, environment, "settings"],
    queryFn: () =>
      need(
        api.GET("/api/v1/places/{component}/{environment}/settings", { params: { path: { component, environment } } }),
      ),
  });

export const receivers = () =>
  queryOptions({ queryKey: ["receivers"], queryFn: () => need(api.GET("/api/v1/receivers")) });

export const messages = (name: string, before?: number) =>
  queryOptions({
    queryKey: ["receivers", name, "messages", before],
    queryFn: () =>
      need(api.GET("/api/v1/receivers/{name}/messages", { params: { path: { name }, query: { before } } })),
  });

export const environments = () =>
  queryOptions({ queryKey: ["environments"], queryFn: () => need(api.GET("/api/v1/environments")) });
