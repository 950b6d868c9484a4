import createClient from "openapi-fetch";
import type { components, paths } from "./schema.gen";

export type Schemas = components["schemas"];

/** What the service says when it does not do what it was asked (RFC 9457). */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    detail: string,
  ) {
    super(detail);
  }
}

const cookie = (name: string) => document.cookie.match(new RegExp(`(?:^|; )${name}=([^;]*)`))?.[1] ?? "";

export const api = createClient<paths>({ baseUrl: location.origin });

// The proof that a request came from this page and not from another one.
api.use({
  onRequest({ request }) {
    if (request.method !== "GET") {
      request.headers.set("X-XSRF-TOKEN", decodeURIComponent(cookie("XSRF-TOKEN")));
    }
    return request;
  },
});

interface Answer<T> {
  data?: T;
  error?: unknown;
  response: Response;
}

/** The data of an answer, or its problem, thrown. */
export async function need<T>(asked: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>;
  try {
    answer = await asked;
  } catch {
    throw new Problem(0, "Not reached", "The service does not answer. The page goes on by itself when it does.");
  }
  if (!answer.response.ok) {
    const said = (answer.error ?? {}) as { title?: string; detail?: string };
    throw new Problem(
      answer.response.status,
      said.title ?? "Refused",
      said.detail ?? `The service answered ${answer.response.status}.`,
    );
  }
  return answer.data as T;
}
