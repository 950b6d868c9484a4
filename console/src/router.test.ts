import { readFileSync } from "node:fs";
import { expect, it } from "vitest";

/** Every path of the router, as one pattern of the service would have it; parts of the settings are one. */
const routed = [...readFileSync("src/router.tsx", "utf8").matchAll(/path: "([^"]+)", lazy/g)]
  .map(([, path = ""]) => (path.startsWith("/") ? path : `/settings/${path}`))
  .map((path) => path.replaceAll(/:\w+/g, "{}").replace(/^\/settings\/[a-z]+/, "/settings/{}"))
  .concat("/settings");

const served = [
  ...readFileSync("../service/src/main/java/dev/paseo/service/web/ConsoleFiles.java", "utf8").matchAll(
    /"(\/[^"*.]*)"[,}]/g,
  ),
].map(([, path = ""]) => path.replaceAll(/\{\w+\}/g, "{}"));

it("has an address that the service knows for every page, and no other", () => {
  expect([...new Set(served)].sort()).toEqual([...new Set(routed)].sort());
});
