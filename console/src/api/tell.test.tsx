import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, renderHook } from "@testing-library/react";
import type { ReactNode } from "react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import type { Schemas } from "./client";
import { notices } from "./queries";
import { fresh, tellInBrowser, useTellInBrowser } from "./tell";

const notice = (id: number, read = false) =>
  ({ id, read, title: `Your decision ${id}`, body: "x".repeat(300), path: "/deployments/7" }) as Schemas["NoticeView"];

it.each([
  [0, [3, 2]],
  [2, [3]],
  [3, []],
])("shows what is unread and newer than %d", (shown, ids) => {
  expect(fresh([notice(3), notice(2), notice(1, true)], shown).map((each) => each.id)).toEqual(ids);
});

const shown: Shown[] = [];
class Shown {
  static permission = "granted";
  static requestPermission = () => Promise.resolve("granted");
  closed = false;
  constructor(
    readonly title: string,
    readonly options: { body: string; tag: string },
  ) {
    shown.push(this);
  }
  close() {
    this.closed = true;
  }
}

beforeEach(() => {
  shown.length = 0;
  localStorage.clear();
  vi.stubGlobal("Notification", Shown);
  vi.spyOn(document, "hidden", "get").mockReturnValue(true);
});

afterEach(() => {
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});

async function page() {
  const client = new QueryClient({ defaultOptions: { queries: { staleTime: Infinity } } });
  const set = (all: Schemas["NoticeView"][]) => client.setQueryData(notices().queryKey, { notices: all } as never);
  set([notice(1)]);
  await tellInBrowser(true);
  renderHook(useTellInBrowser, {
    wrapper: ({ children }: { children: ReactNode }) => (
      <QueryClientProvider client={client}>{children}</QueryClientProvider>
    ),
  });
  const seen = (all: Schemas["NoticeView"][]) =>
    vi.waitFor(() => expect(localStorage.getItem("paseo-notified")).toBe(String(all[0]?.id)));
  await seen([notice(1)]);
  return async (...all: Schemas["NoticeView"][]) => {
    act(() => void set(all));
    await seen(all);
  };
}

it("shows what is new while nobody looks, and takes it away once it is read or decided", async () => {
  const tell = await page();
  expect(shown).toEqual([]);
  await tell(notice(3), notice(2), notice(1));
  await vi.waitFor(() => expect(shown).toHaveLength(2));
  expect(shown.map((each) => [each.title, each.options.body.length, each.options.tag])).toEqual([
    ["Your decision 3", 200, "/deployments/7"],
    ["Your decision 2", 200, "/deployments/7"],
  ]);
  await tell(notice(3, true), notice(2), notice(1));
  await vi.waitFor(() => expect(shown.map((each) => each.closed)).toEqual([true, false]));
  await tell(notice(3, true), notice(1));
  await vi.waitFor(() => expect(shown.map((each) => each.closed)).toEqual([true, true]));
});

it("shows nothing while somebody looks, and nothing of it later", async () => {
  const tell = await page();
  vi.spyOn(document, "hidden", "get").mockReturnValue(false);
  await tell(notice(2), notice(1));
  vi.spyOn(document, "hidden", "get").mockReturnValue(true);
  await tell(notice(3), notice(2), notice(1));
  await vi.waitFor(() => expect(shown.map((each) => each.title)).toEqual(["Your decision 3"]));
});
