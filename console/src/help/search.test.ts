import { readdirSync, readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { around, search, sectionsOf, slugs } from "./search";
import { HELP, helpOf } from "./where";

const DOCS = "../docs";
const ROOMS = ["start", "how-to", "explanation", "reference"];
const SECTIONS = ROOMS.flatMap((room) =>
  readdirSync(`${DOCS}/${room}`)
    .filter((file) => file.endsWith(".md"))
    .flatMap((file) =>
      sectionsOf(`${room}/${file.replace(/\.md$/, "")}`, readFileSync(`${DOCS}/${room}/${file}`, "utf8")),
    ),
);

describe("sections", () => {
  const text = "# Set a gate\nfirst\n## `approvals`, and who\nsecond\n```\n# no heading\n```\n## Who?\n## Who?\n";

  it("are one for each heading, and what stands in a fence is text", () => {
    expect(sectionsOf("how-to/gate", text).map((each) => [each.heading, each.slug])).toEqual([
      ["Set a gate", "set-a-gate"],
      ["approvals, and who", "approvals-and-who"],
      ["Who?", "who"],
      ["Who?", "who-1"],
    ]);
    expect(sectionsOf("how-to/gate", text)[1]?.text).toContain("# no heading");
  });

  it("have slugs of their own, a dash for each space", () => {
    const slug = slugs();
    expect(["Pieces: `pieces` and like", "A – B", "Ärger_1"].map(slug)).toEqual([
      "pieces-pieces-and-like",
      "a--b",
      "ärger_1",
    ]);
  });
});

describe("searching", () => {
  it.each([
    ["emergency review", "how-to/emergency"],
    ["back up", "how-to/back-up"],
    ["enrol agent", "how-to/agent"],
  ])("for %s leads to %s", (sought, page) => {
    expect(
      search(SECTIONS, sought)
        .slice(0, 4)
        .map((each) => each.page),
    ).toContain(page);
  });

  it("finds only what has every word, and nothing for nothing", () => {
    expect(search(SECTIONS, "emergency xylophone")).toEqual([]);
    expect(search(SECTIONS, "  ")).toEqual([]);
  });

  it("shows the line that has the word", () => {
    const [section] = sectionsOf("a/b", "# One\nnothing here\nthe gate is open\n");
    expect(section && around(section, "gate")).toBe("the gate is open");
  });
});

describe("the help of a page", () => {
  it.each(HELP.map(([path, page]) => [String(path), page]))("%s is written: %s", (_, at) => {
    const [page, slug] = at.split("#");
    expect(SECTIONS.some((each) => each.page === page && (!slug || each.slug === slug))).toBe(true);
  });

  it.each([
    ["/", "how-to/console"],
    ["/deployments/41", "how-to/approve"],
    ["/deployments", "how-to/deploy"],
    ["/settings/agents", "how-to/agent#enrol-it"],
  ])("of %s is %s", (path, page) => {
    expect(helpOf(path)).toBe(page);
  });
});
