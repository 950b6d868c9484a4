import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { createMemoryRouter, RouterProvider } from "react-router";
import { afterEach, expect, it } from "vitest";
import { Narrowed } from "./parts";

afterEach(cleanup);

function open(count: number, address = "/") {
  const hosts = Array.from({ length: count }, (_, at) => `hut-${at + 1}`);
  const router = createMemoryRouter(
    [
      {
        path: "/",
        element: (
          <Narrowed of={hosts} what="hosts" by={(host) => host}>
            {(shown) => shown.map((host) => <i key={host}>{host}</i>)}
          </Narrowed>
        ),
      },
    ],
    { initialEntries: [address] },
  );
  render(<RouterProvider router={router} />);
  return router;
}

it("shows a short list as it is", () => {
  open(20);
  expect(screen.queryByRole("searchbox")).toBeNull();
  expect(screen.getByText("hut-20")).toBeVisible();
});

it("says how many of a long list it shows, and finds the others", async () => {
  const router = open(1200);
  expect(screen.getByRole("status")).toHaveTextContent("1,200 hosts, the first 100 shown");
  expect(screen.queryByText("hut-1200")).toBeNull();
  await userEvent.type(screen.getByRole("searchbox"), "HUT-1200");
  expect(screen.getByText("hut-1200")).toBeVisible();
  expect(screen.getByRole("status")).toHaveTextContent("1 of 1,200 hosts");
  expect(router.state.location.search).toBe("?text=HUT-1200");
});

it("says that none is like what is asked, also of a short list", () => {
  open(3, "/?text=shed");
  expect(screen.getByText("None is like that.")).toBeVisible();
  expect(screen.getByRole("status")).toHaveTextContent("0 of 3 hosts");
});
