import { cleanup, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, test } from "vitest";
import { At, clockOf, exactOf, lengthOf, without } from "./time";
import { In, useZoneOfPage } from "./zone";

afterEach(cleanup);

describe("moments", () => {
  test.each([
    ["2026-05-04T22:30:00Z", "Europe/Zurich", "Tue 5 May 00:30", "Tuesday 5 May 2026, 00:30:00 Europe/Zurich"],
    ["2026-01-04T22:30:00Z", "Europe/Zurich", "Sun 4 Jan 23:30", "Sunday 4 January 2026, 23:30:00 Europe/Zurich"],
    ["2026-05-04T22:30:00Z", "America/New_York", "Mon 4 May 18:30", "Monday 4 May 2026, 18:30:00 America/New_York"],
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
    [0, "1 h 10 min", ""],
    [3600, "10 min 0 s", " without 1 h 0 min in which the service was away"],
    [9999, "0 s", " without 2 h 46 min in which the service was away"],
  ])("70 minutes, %s s of them away", (away, length, words) => {
    expect(lengthOf("2026-05-04T08:00:00Z", new Date("2026-05-04T09:10:00Z"), away)).toBe(length);
    expect(without(away)).toBe(words);
  });
});
