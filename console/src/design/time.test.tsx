import { cleanup, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, test, vi } from "vitest";
import { At, clockOf, exactOf, lasting, lengthOf, without } from "./time";
import { In, useZoneOfPage } from "./zone";

beforeEach(() => void vi.useFakeTimers({ now: new Date("2026-06-01T12:00:00Z") }));
afterEach(() => {
  vi.useRealTimers();
  cleanup();
});

describe("moments", () => {
  test.each([
    ["2026-05-04T22:30:00Z", "Europe/Zurich", "Tue 5 May 00:30", "Tuesday 5 May 2026, 00:30:00 Europe/Zurich"],
    ["2026-01-04T22:30:00Z", "Europe/Zurich", "Sun 4 Jan 23:30", "Sunday 4 January 2026, 23:30:00 Europe/Zurich"],
    ["2026-05-04T22:30:00Z", "America/New_York", "Mon 4 May 18:30", "Monday 4 May 2026, 18:30:00 America/New_York"],
    ["2025-12-31T23:30:00Z", "Europe/Zurich", "Thu 1 Jan 00:30", "Thursday 1 January 2026, 00:30:00 Europe/Zurich"],
    [
      "2025-12-31T22:30:00Z",
      "Europe/Zurich",
      "31 Dec 2025 23:30",
      "Wednesday 31 December 2025, 23:30:00 Europe/Zurich",
    ],
    ["2026-06-01T08:30:00Z", "Europe/Zurich", "10:30", "Monday 1 June 2026, 10:30:00 Europe/Zurich"],
    ["2026-05-04T22:30:00Z", "UTC", "Mon 4 May 22:30", "Monday 4 May 2026, 22:30:00 UTC"],
  ])("%s in %s", (time, zone, clock, exact) => {
    expect(clockOf(time, zone)).toBe(clock);
    expect(exactOf(time, zone)).toBe(exact);
  });

  test("a page that names a zone says its times in it, and what stands around it knows", () => {
    const Around = () => <p>{useZoneOfPage() ?? "the reader's"}</p>;
    const { rerender } = render(
      <>
        <Around />
        <In zone="Asia/Tokyo">
          <At time="2026-05-04T22:30:00Z" />
        </In>
      </>,
    );
    expect(screen.getByText("Tue 5 May 07:30").getAttribute("title")).toBe("Tuesday 5 May 2026, 07:30:00 Asia/Tokyo");
    expect(screen.getByText("Asia/Tokyo")).toBeTruthy();
    rerender(<Around />);
    expect(screen.getByText("the reader's")).toBeTruthy();
  });
});

describe("lengths", () => {
  test.each([
    [0, "0 s"],
    [59, "59 s"],
    [60, "1 min"],
    [61, "1 min 1 s"],
    [599, "9 min 59 s"],
    [630, "10 min"],
    [3600, "1 h"],
    [3661, "1 h 1 min"],
    [86399, "23 h 59 min"],
    [86400, "1 d"],
    [90000, "1 d 1 h"],
  ])("%s s", (seconds, words) => expect(lasting(seconds)).toBe(words));

  test.each([
    [0, "1 h 10 min", ""],
    [3600, "10 min", " without 1 h in which the service was away"],
    [9999, "0 s", " without 2 h 46 min in which the service was away"],
  ])("70 minutes, %s s of them away", (away, length, words) => {
    expect(lengthOf("2026-05-04T08:00:00Z", new Date("2026-05-04T09:10:00Z"), away)).toBe(length);
    expect(without(away)).toBe(words);
  });
});
