import createClient from "openapi-fetch";
import type { components, paths } from "./schema.gen";
import { sessionEnded } from "./session";

export type Schemas = components["schemas"];

/** What the service says when it does not do what it was asked (RFC 9457). */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    detail: string,
    /** Each field that is wrong, by its JSON pointer (RFC 6901). */
    readonly fields: { pointer: string; detail: string }[] = [],
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

interface Said {
  title?: string;
  detail?: string;
  pointer?: string;
  errors?: { pointer: string; detail: string }[];
}

const fieldOf = (pointer = "") => pointer.slice(1).replaceAll("/", ".").replaceAll("~1", "/").replaceAll("~0", "~");

export const line = ({ pointer, detail = "" }: { pointer?: string; detail?: string }) => {
  const field = fieldOf(pointer);
  return field === "" || detail.startsWith(`${field} `) || detail.startsWith(`${field}:`)
    ? detail
    : `${field}: ${detail}`;
};

/** What is wrong, each field with its name. */
export const wordsOf = (said: Said): string | undefined =>
  said.errors?.length ? said.errors.map(line).join("\n") : said.detail === undefined ? undefined : line(said);

/** The data of an answer, or its problem, thrown. */
export async function need<T>(asked: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>;
  try {
    answer = await asked;
  } catch {
    throw new Problem(0, "Not reached", "The service does not answer. This page continues by itself when it does.");
  }
  if (!answer.response.ok) {
    if (answer.response.status === 401) sessionEnded(true);
    const said = (answer.error ?? {}) as Said;
    throw new Problem(
      answer.response.status,
      said.title ?? "Refused",
      wordsOf(said) ?? `The service answered ${answer.response.status}.`,
      said.errors ?? (said.pointer ? [{ pointer: said.pointer, detail: said.detail ?? "" }] : []),
    );
  }
  return answer.data as T;
}
