import { useQuery } from "@tanstack/react-query";
import { api, need } from "../../../api/client";

/** Which of the newest pushes patterns name. */
export function Pushes({ component, patterns }: { component: string; patterns: string[] }) {
  const tried = useQuery({
    queryKey: ["patterns", component, patterns.join("\n")],
    enabled: patterns.length > 0,
    staleTime: 60_000,
    placeholderData: (before) => before,
    queryFn: () =>
      need(
        api.POST("/api/v1/components/{name}/pipeline/patterns", {
          params: { path: { name: component } },
          body: { patterns },
        }),
      ),
  });
  if (!tried.data || patterns.length === 0) return null;
  const named = tried.data.filter((push) => push.matches);
  const branches = [...new Set(named.map((push) => push.branch))];
  return (
    <p className="m-0 text-[12px] text-ink-2" role="status">
      {tried.data.length === 0
        ? "There is no push yet against which they could be held."
        : `Names ${named.length} of the last ${tried.data.length} pushes`}
      {branches.length > 0 && `: ${branches.slice(0, 6).join(", ")}${branches.length > 6 ? " and others" : ""}`}
      {tried.data.length > 0 && "."}
    </p>
  );
}
