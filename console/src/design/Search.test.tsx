import { act, cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { Search } from "./Search";

afterEach(cleanup);

const field = () => screen.getByRole<HTMLInputElement>("searchbox");
const shown = (value: string, onType = vi.fn(), pause = 0) => (
  <Search label="Which" placeholder="any" value={value} onType={onType} pause={pause} />
);

it("keeps what is typed where the address comes late", () => {
  const onType = vi.fn();
  const { rerender } = render(shown("", onType));
  field().focus();
  fireEvent.change(field(), { target: { value: "t" } });
  fireEvent.change(field(), { target: { value: "te" } });
  rerender(shown("t", onType));
  expect(field().value).toBe("te");
  expect(onType.mock.calls).toEqual([["t"], ["te"]]);
});

it("follows the address while nobody types", () => {
  const { rerender } = render(shown("team"));
  rerender(shown(""));
  expect(field().value).toBe("");
});

it("asks once, a moment after the last letter", () => {
  vi.useFakeTimers();
  const onType = vi.fn();
  render(shown("", onType, 250));
  fireEvent.change(field(), { target: { value: "t" } });
  fireEvent.change(field(), { target: { value: "te" } });
  expect(onType).not.toHaveBeenCalled();
  act(() => vi.advanceTimersByTime(250));
  expect(onType.mock.calls).toEqual([["te"]]);
  vi.useRealTimers();
});
