import { describe, expect, it } from "vitest";
import { lineOf, move, NotByForm, open, rename, set, valueAt } from "./edits";
import { scalar } from "./written";

const FILE = `paseo: 1
component: daylight-api        # its name
starts:
  - push: [main, "season/*"]
  # every night
  - clock: "0 2 * * *"
    zone: UTC

stages:                        # in this order
  # builds once
  compile:
    wants: [jdk25]
    steps:
      - ./build.sh             # all of it
      - {name: package, command: ./package.sh, retries: 2}
  lint: {after: [], steps: [./lint.sh]}

  unit-tests:
    steps: [./test.sh]
    # slow machines
    timeout: 5m

route:
  - test: automatic
  - staging: on-request
`;

const changed = (before: string, after: string) => {
  const old = before.split("\n");
  const now = after.split("\n");
  return [old.filter((line) => !now.includes(line)), now.filter((line) => !old.includes(line))];
};

describe("a value is set and nothing else is touched", () => {
  it.each([
    [
      "a text",
      ["component"],
      "sun-board",
      ["component: daylight-api        # its name"],
      ["component: sun-board        # its name"],
    ],
    ["a new key", ["stages", "unit-tests", "wanted-if"], "branch == 'main'", [], [`    wanted-if: "branch == 'main'"`]],
    [
      "a new key at the end of a mapping with a comment",
      ["stages", "compile", "may-fail"],
      true,
      [],
      ["    may-fail: true"],
    ],
    [
      "a key in flow style",
      ["stages", "lint", "may-fail"],
      true,
      ["  lint: {after: [], steps: [./lint.sh]}"],
      ["  lint: {after: [], steps: [./lint.sh], may-fail: true}"],
    ],
    [
      "a list in flow style, whose quotes stay",
      ["starts", 0, "push"],
      ["season/*", "main", "try"],
      ['  - push: [main, "season/*"]'],
      ['  - push: ["season/*", main, try]'],
    ],
    [
      "an item of a list in block style, whose neighbours stay",
      ["stages", "compile", "steps"],
      ["./clean.sh", "./build.sh", { name: "package", command: "./package.sh", retries: 2 }],
      [],
      ["      - ./clean.sh"],
    ],
    [
      "a step of several lines",
      ["stages", "compile", "steps", 2],
      "a\nb",
      [],
      ["      - |-", "        a", "        b"],
    ],
    [
      "what is not there yet",
      ["deployment", "checks", "keep-checking"],
      "5m",
      [],
      ["deployment: {checks: {keep-checking: 5m}}"],
    ],
    [
      "a whole stage, apart from the others as they are",
      ["stages", "tidy"],
      { "after-any": ["compile"], steps: ["./tidy.sh"] },
      [],
      ["  tidy:", "    after-any: [compile]", "    steps: [./tidy.sh]"],
    ],
    ["a step of a route", ["route", 2], { production: "on-request" }, [], ["  - {production: on-request}"]],
  ] as const)("%s", (_, path, value, gone, come) => {
    const after = set(FILE, [...path], structuredClone(value) as never);
    expect(changed(FILE, after)).toEqual([gone, come]);
    expect(valueAt(open(after), [...path])).toEqual(value);
  });

  it("takes away with its own comment, and leaves the others", () => {
    expect(changed(FILE, set(FILE, ["starts", 1], undefined))[0]).toEqual([
      "  # every night",
      '  - clock: "0 2 * * *"',
      "    zone: UTC",
    ]);
    expect(changed(FILE, set(FILE, ["stages", "lint", "after"], undefined))[1]).toEqual([
      "  lint: {steps: [./lint.sh]}",
    ]);
    expect(changed(FILE, set(FILE, ["stages", "unit-tests", "timeout"], undefined))).toEqual([
      ["    # slow machines", "    timeout: 5m"],
      [],
    ]);
    expect(set("a: 1\nb:\n  c: 1\n", ["b", "c"], undefined)).toBe("a: 1\n");
    expect(set("a: 1\nb:\n  c: 1\nd: 2\n", ["b", "c"], undefined, 1)).toBe("a: 1\nb: {}\nd: 2\n");
  });
});

describe("order and names", () => {
  it("moves a stage with its comment and all that is in it", () => {
    const after = move(FILE, ["stages"], 0, 2);
    expect(Object.keys(valueAt(open(after), ["stages"]) as object)).toEqual(["lint", "unit-tests", "compile"]);
    expect(after).toContain("  # builds once\n  compile:\n    wants: [jdk25]\n");
    expect([...after].sort()).toEqual([...FILE].sort());
    expect(move(after, ["stages"], 2, 0)).toBe(FILE);
  });

  it("moves items of lists, of both styles", () => {
    expect(move(FILE, ["route"], 1, 0)).toContain("route:\n  - staging: on-request\n  - test: automatic\n");
    expect(move(FILE, ["starts"], 1, 0)).toContain("starts:\n  # every night\n  - clock:");
    expect(move(FILE, ["starts", 0, "push"], 1, 0)).toContain('["season/*", main]');
  });

  it("renames", () => {
    expect(rename(FILE, ["stages", "lint"], "look-over")).toContain("  look-over: {after: [], steps");
  });
});

describe("what a form leaves alone", () => {
  it("says where a text cannot be read, and that it has anchors", () => {
    expect(open("a: [1,\nb: 2").why).toContain("Forms wait until line");
    expect(open("a: &one [1]\nb: *one").why).toContain("anchors");
    expect(() => set("a: &one 1\nb: *one", ["a"], 2)).toThrow(NotByForm);
    expect(() => set("- a\n- b", ["a"], 2)).toThrow(NotByForm);
  });

  it("knows where things stand", () => {
    expect(lineOf(FILE, ["stages", "lint"])).toBe(16);
    expect(valueAt(open("a: [1"), ["a"])).toBeUndefined();
  });

  it("writes texts so that they are read as texts", () => {
    for (const text of [
      "main",
      "5",
      "true",
      "a: b",
      "#x",
      "0 2 * * *",
      "./x.sh",
      "*",
      "- a",
      "it's",
      "a #b",
      " a",
      "",
      "on",
    ]) {
      expect(valueAt(open(`a: ${scalar(text)}\n`), ["a"])).toBe(text);
    }
  });
});

/** Many changes one after the other on a file of 2,000 lines. */
it("answers soon on a long file", () => {
  const stages = Array.from(
    { length: 500 },
    (_, at) => `  s-${at}:\n    after: []\n    steps: [./build.sh]\n    timeout: 5m\n`,
  );
  let text = `paseo: 1\ncomponent: a\nstages:\n${stages.join("")}`;
  const took: number[] = [];
  for (let at = 0; at < 10; at++) {
    const began = performance.now();
    text = set(text, ["stages", "s-250", "timeout"], `${at + 1}m`);
    took.push(performance.now() - began);
  }
  expect(valueAt(open(text), ["stages", "s-250", "timeout"])).toBe("10m");
  console.info(`a change on ${text.split("\n").length} lines: ${took.map((each) => each.toFixed(0)).join(", ")} ms`);
});
