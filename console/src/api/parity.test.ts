import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, it } from "vitest";

interface Api {
  paths: Record<string, Record<string, unknown>>;
}

const { paths } = JSON.parse(readFileSync("openapi.json", "utf8")) as Api;

const sources = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((each) => {
    const path = join(folder, each.name);
    if (each.isDirectory()) return sources(path);
    return /\.tsx?$/.test(each.name) && !/\.test\.|\.gen\./.test(each.name) ? [readFileSync(path, "utf8")] : [];
  });

const bare = (path: string) => path.replaceAll(/\{[^}]*\}/g, "{}");
const source = sources("src").join("\n");
const called = new Set([
  ...[...source.matchAll(/api\.([A-Z]+)\(\s*"([^"]+)"/g)].map(([, method, path]) => `${method} ${path}`),
  ...[...source.matchAll(/fetch\("([^"]+)", \{\s*method: "([A-Z]+)"/g)].map(([, path, method]) => `${method} ${path}`),
]);

/** Addresses that are followed or fetched by the browser itself: downloads, calendars, pictures. */
const linked = source.replaceAll(/\$\{[^}]*\}/g, "{}");

/** What no page reaches, and why. */
const ELSEWHERE: Record<string, string> = {
  "POST /api/v1/tokens": "signs scripts and the client in; the console has sessions",
  "POST /api/v1/components/{name}/uploads": "a build elsewhere uploads, with its token",
  "GET /api/v1/uploads/{id}": "as above",
  "PUT /api/v1/uploads/{id}/files/{kind}/{name}": "as above",
  "POST /api/v1/uploads/{id}/seal": "as above",
  "PUT /api/v1/components/{name}/pushes/{commit}": "a hook says it, in the name of whoever pushed",
  "GET /api/v1/versions/{component}/{number}/passages": "a version's page has them already",
  "GET /api/v1/versions/{component}/{number}/consequences": "the chain of the event that led to it shows them",
  "GET /api/v1/runs/{component}/{number}/consequences": "as above",
  "GET /api/v1/deployments/{id}/consequences": "as above",
  "GET /api/v1/deployments/{id}/why": "a deployment's page shows its causes",
  "GET /api/v1/runs/{component}/{number}/outputs/{name}": "programs read them",
  "GET /api/v1/components/{name}/events/{id}": "the list of events has each whole",
  "GET /api/v1/loosenings/{id}": "the list has each whole",
  "PUT /api/v1/versions/{component}/{number}/evidence/{kind}": "tools add files, with their token",
  "GET /api/v1/audit/head": "an opened entry shows it; the client keeps it elsewhere",
  "GET /api/v1/audit/consistency": "the client holds a head that was kept against it",
  "GET /api/v1/comparison/environments": "an environment's page compares by its differences",
};

it("reaches every operation of the API, or says why not", () => {
  const lost = Object.entries(paths).flatMap(([path, operations]) =>
    Object.keys(operations)
      .map((method) => `${method.toUpperCase()} ${path}`)
      .filter((name) => path.startsWith("/api/v1") && !called.has(name) && !(name in ELSEWHERE))
      .filter((name) => !(name.startsWith("GET ") && linked.includes(bare(path)))),
  );
  expect(lost).toEqual([]);
});

it("makes no exception of what it reaches, nor of what is not there", () => {
  const there = new Set(
    Object.entries(paths).flatMap(([path, operations]) =>
      Object.keys(operations).map((method) => `${method.toUpperCase()} ${path}`),
    ),
  );
  expect(Object.keys(ELSEWHERE).filter((name) => called.has(name) || !there.has(name))).toEqual([]);
});
