import { useQuery } from "@tanstack/react-query";
import { ChevronRight } from "lucide-react";
import { useState } from "react";
import { Problem } from "../../api/client";
import { Loading, Trouble } from "../../design/parts";
import { coded } from "./words";

interface Media {
  example?: unknown;
}

interface Answer {
  $ref?: string;
  description?: string;
  content?: Record<string, Media>;
}

interface Operation {
  tags: string[];
  summary?: string;
  description?: string;
  parameters?: { name: string; in: string; description?: string; required?: boolean }[];
  requestBody?: { content: Record<string, Media> };
  responses: Record<string, Answer>;
}

interface Described {
  paths: Record<string, Record<string, Operation>>;
  components: { responses: Record<string, Answer> };
}

interface Listed extends Operation {
  method: string;
  path: string;
}

async function described(): Promise<Described> {
  const answer = await fetch("/api/openapi.json");
  if (!answer.ok) throw new Problem(answer.status, "Not shown", "The service does not describe its API just now.");
  return (await answer.json()) as Described;
}

const listed = (api: Described): Listed[] =>
  Object.entries(api.paths).flatMap(([path, item]) =>
    Object.entries(item).map(([method, operation]) => ({ ...operation, method: method.toUpperCase(), path })),
  );

const exampleOf = (content?: Record<string, Media>) => Object.values(content ?? {})[0]?.example;

function Example({ title, value }: { title: string; value: unknown }) {
  if (value === undefined) return null;
  return (
    <>
      <h4 className="mt-4 mb-1">{title}</h4>
      <pre className="m-0 max-h-[360px] overflow-auto rounded-[4px] bg-ground p-3 font-mono text-[12px] leading-4">
        {typeof value === "string" ? value : JSON.stringify(value, null, 2)}
      </pre>
    </>
  );
}

function One({ operation, problems }: { operation: Listed; problems: Record<string, Answer> }) {
  const good = Object.entries(operation.responses).filter(([status]) => status < "300");
  const refused = Object.entries(operation.responses).filter(([status]) => status >= "300");
  return (
    <details className="group border-t border-line first:border-t-0">
      <summary className="grid cursor-pointer grid-cols-[64px_minmax(0,1fr)_16px] items-start gap-x-3 px-4 py-2.5">
        <span className="font-mono text-[12px] leading-5 text-ink-3">{operation.method}</span>
        <span>
          <code className="block break-all">{operation.path}</code>
          <span className="text-ink-2">{coded(operation.summary ?? "")}</span>
        </span>
        <ChevronRight size={16} className="text-ink-3 group-open:rotate-90" aria-hidden="true" />
      </summary>
      <div className="pr-4 pb-5 pl-[92px]">
        {operation.description && <p className="mt-0">{coded(operation.description)}</p>}
        {operation.parameters && operation.parameters.length > 0 && (
          <>
            <h4 className="mt-3 mb-1">Parameters</h4>
            <dl className="m-0 grid grid-cols-[max-content_minmax(0,1fr)] gap-x-4 gap-y-1">
              {operation.parameters.map((each) => (
                <div key={each.in + each.name} className="contents">
                  <dt>
                    <code>{each.name}</code>
                    <span className="ml-2 text-ink-3">{each.in}</span>
                  </dt>
                  <dd className="m-0">{each.description}</dd>
                </div>
              ))}
            </dl>
          </>
        )}
        <Example title="It is sent" value={exampleOf(operation.requestBody?.content)} />
        {good.map(([status, answer]) => (
          <Example key={status} title={`It answers ${status}`} value={exampleOf(answer.content)} />
        ))}
        <h4 className="mt-4 mb-1">Problems</h4>
        <dl className="m-0 grid grid-cols-[max-content_minmax(0,1fr)] gap-x-4 gap-y-1">
          {refused.map(([status, answer]) => (
            <div key={status} className="contents">
              <dt className="font-mono">{status}</dt>
              <dd className="m-0">{coded(problems[answer.$ref?.split("/").pop() ?? ""]?.description ?? "")}</dd>
            </div>
          ))}
        </dl>
      </div>
    </details>
  );
}

/** The API as a page: each operation, by the noun that it is about. */
export default function Api() {
  const api = useQuery({ queryKey: ["openapi"], queryFn: described, staleTime: Infinity });
  const [sought, setSought] = useState("");
  if (api.error) return <Trouble error={api.error} />;
  if (!api.data) return <Loading height={600} />;
  const wanted = listed(api.data).filter((each) =>
    `${each.method} ${each.path} ${each.summary}`.toLowerCase().includes(sought.toLowerCase()),
  );
  const nouns = [...new Set(wanted.map((each) => each.tags[0] ?? ""))].sort();
  return (
    <>
      <title>The API · Paseo</title>
      <div className="title-line">
        <h1>The API</h1>
        <p>
          What the console and the client use too. <a href="/api/openapi.json">openapi.json</a> has the same for
          programs.
        </p>
      </div>
      <div className="grid grid-cols-1 gap-8 md:grid-cols-[160px_minmax(0,1fr)]">
        <nav aria-label="Nouns" className="self-start md:sticky md:top-4">
          <input
            className="input mb-3 w-full"
            type="search"
            placeholder="Find"
            aria-label="Find an operation"
            value={sought}
            onChange={(event) => setSought(event.target.value)}
          />
          <ul className="m-0 list-none p-0">
            {nouns.map((noun) => (
              <li key={noun}>
                <a href={`#${noun}`}>{noun}</a>
              </li>
            ))}
          </ul>
        </nav>
        <div className="grid gap-6">
          {nouns.length === 0 && <p>No operation matches “{sought}”.</p>}
          {nouns.map((noun) => (
            <section key={noun} id={noun} aria-label={noun}>
              <h2 className="mb-2">{noun}</h2>
              <div className="sheet">
                {wanted
                  .filter((each) => each.tags[0] === noun)
                  .map((each) => (
                    <One key={each.method + each.path} operation={each} problems={api.data.components.responses} />
                  ))}
              </div>
            </section>
          ))}
        </div>
      </div>
    </>
  );
}
