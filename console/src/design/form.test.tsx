import { cleanup, render, screen } from "@testing-library/react";
import { afterEach, expect, test } from "vitest";
import { Problem } from "../api/client";
import { Field, Refused, restOf, wrongAt } from "./form";

afterEach(cleanup);

const refused = new Problem(400, "The request is not valid", "two fields", [
  { pointer: "/name", detail: "name should be text" },
  { pointer: "/members/0/version", detail: "is missing" },
  { pointer: "/comment", detail: "should be 1 to 2000 characters" },
]);

test.each([
  ["/name", "Should be text"],
  ["/members", "Is missing"],
  ["/member", undefined],
  ["/until", undefined],
])("what is wrong at %s", (at, words) => expect(wrongAt(refused, at)).toBe(words));

test("an error that names no field is said as it is", () => {
  expect(wrongAt(new Error("away"), "/name")).toBeUndefined();
  expect(restOf(new Error("away"), ["/name"])).toBe("away");
  expect(restOf(undefined, [])).toBe("");
});

test("it stands beside its field, and what has no field there stands below with its name", () => {
  render(
    <>
      <Field label="Name" at="/name" refused={refused}>
        <input />
      </Field>
      <Refused refused={refused} beside={["/name", "/members"]} />
    </>,
  );
  const input = screen.getByLabelText(/^Name/);
  expect(input.getAttribute("aria-invalid")).toBe("true");
  expect(document.getElementById(input.getAttribute("aria-describedby") ?? "")?.textContent).toBe("Should be text");
  expect(screen.getAllByRole("alert").map((each) => each.textContent)).toEqual([
    "Should be text",
    "comment: should be 1 to 2000 characters",
  ]);
});
