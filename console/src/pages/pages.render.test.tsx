import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import type { ReactElement } from "react";
import { createMemoryRouter, RouterProvider } from "react-router";
import { afterEach, beforeEach, describe, expect, test, vi } from "vitest";
import type { Schemas } from "../api/client";
import Audit from "./audit/Audit";
import OneSet from "./sets/OneSet";
import Sets from "./sets/Sets";
import { Promote } from "./version/Promote";
import { Deputies } from "./waiting/Deputies";
import { Notices } from "./waiting/Notices";
import Waiting from "./waiting/Waiting";
import Whereabouts from "./whereabouts/Whereabouts";

/** The service: pages keep the way to it from when they are loaded. */
const service = vi.hoisted(() => {
  const held = { answer: (request: Request): Promise<Response> => Promise.reject(new Error(request.url)) };
  globalThis.fetch = (request) => held.answer(request as Request);
  return held;
});

/** What the service answers, by method and path; and what it was sent. */
let answers: Record<string, unknown>;
let refusals: Record<string, { status: number; detail: string }>;
let sent: { what: string; body: unknown }[];

beforeEach(() => {
  answers = {
    "GET /api/v1/session": { name: "approver-1", groups: [], may: ["PROMOTE"], there: [] },
    "GET /api/v1/previews": [],
    "GET /api/v1/views": [],
    "GET /api/v1/asks": [],
    "GET /api/v1/loosenings": [],
  };
  refusals = {};
  sent = [];
  service.answer = async (request) => {
    const what = `${request.method} ${new URL(request.url).pathname}`;
    if (request.method !== "GET") sent.push({ what, body: await request.json().catch(() => undefined) });
    const refused = refusals[what];
    if (refused)
      return new Response(JSON.stringify({ title: "Refused", detail: refused.detail }), {
        status: refused.status,
        headers: { "Content-Type": "application/problem+json" },
      });
    return new Response(JSON.stringify(answers[what] ?? {}), {
      status: 200,
      headers: { "Content-Type": "application/json" },
    });
  };
});

afterEach(cleanup);

function show(page: ReactElement, path = "/", route = "/") {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  const router = createMemoryRouter(
    [
      { path: route, element: page },
      { path: "*", element: <p>elsewhere</p> },
    ],
    { initialEntries: [path] },
  );
  render(
    <QueryClientProvider client={client}>
      <RouterProvider router={router} />
    </QueryClientProvider>,
  );
  return router;
}

const cell = (environment: string, version?: string) => ({ environment, version, hosts: 1, coming: [], behind: 0 });
const row = (component: string, labels: Record<string, string>) => ({
  component,
  summary: `the ${component}`,
  labels,
  cells: [cell("test", "1.4.1"), cell("production")],
  stays: [],
});
const WHERE = {
  now: "2026-05-04T08:00:00Z",
  environments: [
    { name: "test", gated: false, hosts: 1 },
    { name: "production", gated: true, hosts: 3, closed: "hill race" },
  ],
  rows: [row("hut-planner", {}), row("daylight-api", { team: "wardens" })],
};

describe("whereabouts", () => {
  beforeEach(() => {
    answers["GET /api/v1/whereabouts"] = WHERE;
  });

  test("groups by the label that the address names, those without it last", async () => {
    show(<Whereabouts />, "/?group=team");
    const groups = await screen.findAllByRole("rowheader");
    expect(groups.map((group) => group.textContent)).toEqual([
      "team wardens 1 component",
      "daylight-apithe daylight-api",
      "no team 1 component",
      "hut-plannerthe hut-planner",
    ]);
  });

  test("filters by a label, says so when nothing has it, and keeps it in the address", async () => {
    const router = show(<Whereabouts />);
    await userEvent.type(await screen.findByRole("searchbox"), "team=works");
    expect(await screen.findByText(/No component has “team=works”/)).toBeVisible();
    expect(router.state.location.search).toBe("?component=team%3Dworks");
  });

  test("says that an environment is closed, and why", async () => {
    show(<Whereabouts />);
    expect(await screen.findByTitle("hill race")).toHaveTextContent("closed");
  });

  test("says what to do first where nothing is there", async () => {
    answers["GET /api/v1/whereabouts"] = { ...WHERE, rows: [] };
    answers["GET /api/v1/agents"] = [];
    show(<Whereabouts />);
    expect(await screen.findByRole("link", { name: "Bring in a component" })).toBeVisible();
    expect(screen.getByRole("link", { name: "Enrol an agent" })).toHaveAttribute("href", "/settings/agents");
    expect(screen.queryByText("Write the first one")).toBeNull();
  });
});

describe("sets", () => {
  beforeEach(() => {
    answers["GET /api/v1/whereabouts"] = WHERE;
    answers["GET /api/v1/versions/daylight-api"] = ["1.4.2", "1.4.1"];
    answers["GET /api/v1/versions/hut-planner"] = ["2.3.0"];
  });

  test("a set is made of versions in their order; what was typed stays where it is refused", async () => {
    answers["GET /api/v1/sets"] = [];
    refusals["POST /api/v1/sets"] = {
      status: 409,
      detail: "there is a set evening already, and sets do not change: choose another name",
    };
    show(<Sets />);
    await userEvent.click(await screen.findByRole("button", { name: "Make a set" }));
    await userEvent.type(screen.getByLabelText("Name"), "evening");
    await userEvent.selectOptions(screen.getByLabelText("Component 1"), "daylight-api");
    await userEvent.selectOptions(await screen.findByLabelText("Version 1"), "1.4.2");
    await userEvent.selectOptions(screen.getByLabelText("Component 2"), "hut-planner");
    await waitFor(() => expect(screen.getByLabelText("Version 2")).toBeEnabled());
    await userEvent.selectOptions(screen.getByLabelText("Version 2"), "2.3.0");
    await userEvent.click(screen.getByRole("button", { name: "Deploy hut-planner earlier" }));
    await userEvent.click(screen.getByRole("button", { name: "Make the set" }));
    expect(await screen.findByRole("alert")).toHaveTextContent("there is a set evening already");
    expect(sent).toEqual([
      {
        what: "POST /api/v1/sets",
        body: {
          name: "evening",
          members: [
            { component: "hut-planner", version: "2.3.0" },
            { component: "daylight-api", version: "1.4.2" },
          ],
        },
      },
    ]);
    expect(screen.getByLabelText("Name")).toHaveValue("evening");
  });

  test("a component stands in a set once", async () => {
    answers["GET /api/v1/sets"] = [];
    show(<Sets />);
    await userEvent.click(await screen.findByRole("button", { name: "Make a set" }));
    await userEvent.selectOptions(screen.getByLabelText("Component 1"), "daylight-api");
    expect([...screen.getByLabelText<HTMLSelectElement>("Component 2").options].map((option) => option.text)).toEqual([
      "component",
      "hut-planner",
    ]);
  });

  test("a set says which member is live where, and why a promotion was undone", async () => {
    answers["GET /api/v1/sets/evening"] = {
      name: "evening",
      by: "release-engineer",
      at: "2026-05-04T08:00:00Z",
      members: [
        { component: "daylight-api", version: "1.4.1" },
        { component: "hut-planner", version: "2.3.0" },
      ],
      promotions: [
        {
          id: 1,
          environment: "production",
          status: "undone",
          requestedBy: "release-engineer",
          comment: "",
          requestedAt: "2026-05-04T08:00:00Z",
          parts: [
            { component: "daylight-api", version: "1.4.1", deployment: 7, status: "undone" },
            {
              component: "hut-planner",
              version: "2.3.0",
              deployment: 8,
              status: "undone",
              reason: "north-hut: large.ttf is missing",
            },
          ],
        },
      ],
    };
    show(<OneSet />, "/sets/evening", "/sets/:name");
    expect(await screen.findByText("this one")).toBeVisible();
    expect(screen.getByText("north-hut: large.ttf is missing")).toBeVisible();
    await userEvent.click(await screen.findByRole("button", { name: "Promote into production" }));
    expect(await screen.findByText(/If one does not go live, all of it is undone/)).toBeVisible();
    expect(sent).toEqual([]);
  });
});

describe("a version", () => {
  test("is not offered for where it has no place; why, and the way to a place, are said", async () => {
    const view: Schemas["VersionView"] = {
      component: "notice-board",
      number: "1.0.1",
      names: [],
      branch: "main",
      trusted: true,
      digest: "d",
      sealedAt: "2026-11-23T09:00:00Z",
      artifacts: [],
      recipe: {},
      causes: [],
      deployments: [],
      evidence: [],
      walk: [
        { environment: "test", gated: false },
        { environment: "staging", gated: false, noPlace: "notice-board has no place in staging" },
      ],
    };
    show(<Promote view={view} />);
    expect(await screen.findByRole("button", { name: "Deploy to test" })).toBeVisible();
    expect(screen.queryByRole("button", { name: "Deploy to staging" })).toBeNull();
    expect(screen.getByText(/notice-board has no place in staging/)).toBeVisible();
    expect(screen.getByRole("link", { name: "Where it runs" })).toHaveAttribute(
      "href",
      "/components/notice-board/address",
    );
  });
});

describe("waiting", () => {
  const deputy = {
    id: 3,
    account: "approver-1",
    deputy: "operator",
    from: "2026-05-04T08:00:00Z",
    until: "2026-05-08T08:00:00Z",
    setBy: "approver-1",
  };

  test("who decides in whose place is said from the reader's side, and can be ended", async () => {
    answers["GET /api/v1/deputies"] = [deputy, { ...deputy, id: 4, account: "approver-2", deputy: "approver-1" }];
    show(<Deputies />);
    const items = await screen.findAllByRole("listitem");
    expect(items[0]).toHaveTextContent("operator in your place");
    expect(items[1]).toHaveTextContent("You in the place of approver-2");
    await userEvent.click(screen.getAllByRole("button", { name: "End" })[0] as HTMLElement);
    expect(sent).toEqual([{ what: "DELETE /api/v1/deputies/3", body: undefined }]);
  });

  test("a deputy who may not decide is told, and what was typed stays", async () => {
    answers["GET /api/v1/deputies"] = [];
    refusals["POST /api/v1/deputies"] = { status: 409, detail: "developer has no role that decides" };
    show(<Deputies />);
    await userEvent.click(await screen.findByRole("button", { name: "Name one" }));
    await userEvent.type(screen.getByLabelText("Who decides in your place"), "developer");
    await userEvent.type(screen.getByLabelText("Until"), "2099-01-01T08:00");
    await userEvent.click(screen.getByRole("button", { name: "Name as deputy" }));
    expect(await screen.findByRole("alert")).toHaveTextContent("developer has no role that decides");
    expect(screen.getByLabelText("Who decides in your place")).toHaveValue("developer");
  });

  test("what is told is chosen for one component alone", async () => {
    const choice = { event: "waits", words: "something waits for you", console: "now", mail: "now" };
    answers["GET /api/v1/notices"] = { unread: 0, notices: [] };
    answers["GET /api/v1/whereabouts"] = WHERE;
    answers["GET /api/v1/notices/choices"] = {
      everywhere: [choice],
      components: { "daylight-api": [{ ...choice, mail: "daily" }] },
    };
    show(<Notices />);
    await userEvent.click(await screen.findByRole("button", { name: "Choose" }));
    await screen.findByRole("option", { name: "of daylight-api alone, otherwise" });
    await userEvent.selectOptions(screen.getByLabelText("Of which component"), "daylight-api");
    expect(screen.getByLabelText("something waits for you: by mail")).toHaveValue("daily");
    await userEvent.selectOptions(screen.getByLabelText("something waits for you: by mail"), "off");
    expect(sent).toEqual([
      {
        what: "PUT /api/v1/notices/choices",
        body: { event: "waits", channel: "mail", delivery: "off", component: "daylight-api" },
      },
    ]);
  });

  test("a loosening shows all that it changes; what is said about it goes with what was looked at", async () => {
    const loosening = {
      id: 3,
      kind: "rules",
      what: ["production is loosened: To enter: “Live for 2 h” is no longer asked", "production: its rules change"],
      text: "environments:\n  production:\n",
      subject: "ab12",
      asked: { production: ["approvers"] },
      by: "operator",
      at: "2026-05-04T08:00:00Z",
      until: "2026-05-11T08:00:00Z",
      people: ["approver-1"],
      words: [],
      status: "open",
    };
    Object.assign(answers, {
      "GET /api/v1/waiting": {
        now: WHERE.now,
        count: 1,
        gates: [],
        reviews: [],
        asks: [],
        grants: [],
        stays: [],
        nobody: [],
        loosenings: [loosening],
      },
      "GET /api/v1/deputies": [],
      "GET /api/v1/notices": { unread: 0, notices: [] },
    });
    show(<Waiting />);
    expect(await screen.findByText("operator wants to loosen what is asked for production")).toBeVisible();
    expect(screen.getByText("production: its rules change")).toBeVisible();
    await userEvent.click(screen.getByRole("button", { name: "Refuse" }));
    await userEvent.click(screen.getByRole("button", { name: "Refuse it" }));
    expect(screen.getByRole("alert")).toHaveTextContent("Say why");
    await userEvent.type(screen.getByRole("textbox"), "The two hours stay.");
    await userEvent.click(screen.getByRole("button", { name: "Refuse it" }));
    expect(sent).toContainEqual({
      what: "POST /api/v1/loosenings/3/words",
      body: { yes: false, comment: "The two hours stay.", subject: "ab12" },
    });
  });

  test("whoever wants a loosening sees whom it waits for, and takes it back; others' are not theirs", async () => {
    const loosening = {
      id: 4,
      kind: "grant",
      what: ["daylight-api is given the secret MAP_KEY"],
      subject: "ab12",
      asked: { production: ["approvers"] },
      by: "approver-1",
      at: "2026-05-04T08:00:00Z",
      until: "2026-05-11T08:00:00Z",
      people: ["approver-2"],
      agreed: false,
      words: [],
      status: "open",
    };
    Object.assign(answers, {
      "GET /api/v1/waiting": {
        now: WHERE.now,
        count: 0,
        gates: [],
        reviews: [],
        asks: [],
        grants: [],
        stays: [],
        nobody: [],
        loosenings: [],
      },
      "GET /api/v1/deputies": [],
      "GET /api/v1/notices": { unread: 0, notices: [] },
      "GET /api/v1/loosenings": [
        loosening,
        { ...loosening, id: 5, by: "operator", what: ["of somebody else"] },
        { ...loosening, id: 6, status: "done", what: ["that is over"] },
      ],
    });
    show(<Waiting />);
    expect(await screen.findByText("Waits for approver-2")).toBeVisible();
    expect(screen.queryByText("of somebody else")).toBeNull();
    expect(screen.queryByText("that is over")).toBeNull();
    await userEvent.click(screen.getByRole("button", { name: "Take back" }));
    await userEvent.click(screen.getByRole("button", { name: "Take it back" }));
    expect(sent).toContainEqual({ what: "POST /api/v1/loosenings/4/withdrawal", body: undefined });
  });

  test("what waits for nobody is told to who can change it; with nothing to do that is said", async () => {
    const gate = {
      deployment: 7,
      component: "daylight-api",
      environment: "production",
      version: "1.4.1",
      kind: "decision",
      name: "0 of 2 approvals",
      sentence: "Nobody may decide this.",
      since: "2026-05-04T08:00:00Z",
    };
    Object.assign(answers, {
      "GET /api/v1/waiting": {
        now: WHERE.now,
        count: 1,
        gates: [],
        reviews: [],
        asks: [],
        grants: [],
        stays: [],
        nobody: [gate],
        loosenings: [],
      },
      "GET /api/v1/deputies": [],
      "GET /api/v1/notices": { unread: 0, notices: [] },
    });
    show(<Waiting />);
    expect(await screen.findByText("Nobody may decide this.")).toBeVisible();
    expect(screen.getByRole("link", { name: /daylight-api 1.4.1 into production/ })).toHaveAttribute(
      "href",
      "/deployments/7",
    );
  });
});

test("a text of the trail is looked for further back by itself, but not once that has failed", async () => {
  answers["GET /api/v1/whereabouts"] = WHERE;
  const others = service.answer;
  let asked = 0;
  service.answer = async (request) => {
    if (!request.url.includes("/api/v1/audit")) return others(request);
    asked++;
    return asked > 2
      ? new Response(JSON.stringify({ title: "Failed inside" }), {
          status: 500,
          headers: { "Content-Type": "application/problem+json" },
        })
      : new Response(JSON.stringify({ entries: [], next: 100 - asked, lookedBack: "2026-05-04T12:00:00Z" }), {
          headers: { "Content-Type": "application/json" },
        });
  };
  show(<Audit />, "/?text=needle");
  await screen.findByText(/then it failed/);
  expect(asked).toBe(3);
});
