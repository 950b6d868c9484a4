import { QueryClient, QueryObserver } from "@tanstack/react-query";
import { expect, it, vi } from "vitest";
import { componentOf, outdate } from "./live";

it("asks once more where an event comes while a page's first answer is on its way", async () => {
  const client = new QueryClient();
  const answers: ((state: string) => void)[] = [];
  const observer = new QueryObserver(client, {
    queryKey: ["deployment", 1],
    queryFn: () => new Promise<string>((answer) => answers.push(answer)),
  });
  const stop = observer.subscribe(() => undefined);
  outdate(client, { queryKey: ["deployment"] });
  expect(answers).toHaveLength(1);
  answers[0]?.("deploying");
  await vi.waitFor(() => expect(answers).toHaveLength(2));
  answers[1]?.("live");
  await vi.waitFor(() => expect(observer.getCurrentResult().data).toBe("live"));
  stop();
});

it.each([
  ["whereabouts", "daylight-api", "daylight-api"],
  ["whereabouts", "all", undefined],
  ["version", "daylight-api 1.4.7", "daylight-api"],
  ["run", "daylight-api#41", "daylight-api"],
  ["deployment", "41", undefined],
  ["environment", "production", undefined],
])("a change of %s %s is about %s", (kind, subject, component) => {
  expect(componentOf({ kind, subject })).toBe(component);
});
