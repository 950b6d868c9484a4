import { expect, it } from "vitest";
import { wordsOf } from "./client";

it.each([
  [
    { detail: "should be 1 to 20", pointer: "/environments/production/to-enter/count" },
    "environments.production.to-enter.count: should be 1 to 20",
  ],
  [{ detail: "name should be text", pointer: "/name" }, "name should be text"],
  [{ detail: "is not there", pointer: "/hosts/hut~1north" }, "hosts.hut/north: is not there"],
  [{ detail: "the body is not JSON", pointer: "" }, "the body is not JSON"],
  [{ detail: "there is no run 7" }, "there is no run 7"],
  [
    {
      detail: "x",
      errors: [
        { pointer: "/name", detail: "is missing" },
        { pointer: "/days", detail: "should be 1 to 365" },
      ],
    },
    "name: is missing\ndays: should be 1 to 365",
  ],
  [{}, undefined],
])("says of %o: %s", (said, words) => expect(wordsOf(said)).toBe(words));
