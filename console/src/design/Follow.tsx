import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Bell, BellRing } from "lucide-react";
import { api, need } from "../api/client";
import { following } from "../api/queries";
import { Refused, useTrying } from "./form";

interface FollowProps {
  what: "component" | "environment" | "deployment";
  name: string;
}

/** Whether one is told of this: how deployments of it end, and which of its runs fail. */
export function Follow({ what, name }: FollowProps) {
  const known = useQuery(following());
  const client = useQueryClient();
  const { trying, busy, refused } = useTrying();
  if (!known.data) return null;
  const on = known.data.some((each) => each.what === what && each.name === name);
  const path = { params: { path: { what, name } } };
  const turn = () =>
    trying(async () => {
      await need(
        on ? api.DELETE("/api/v1/following/{what}/{name}", path) : api.PUT("/api/v1/following/{what}/{name}", path),
      );
      await client.invalidateQueries({ queryKey: ["following"] });
    });
  return (
    <>
      <button
        type="button"
        className="btn print:hidden"
        aria-pressed={on}
        disabled={busy}
        title={
          on
            ? "You are told how its deployments end; press to be told no more"
            : "Be told how its deployments end and which of its runs fail, on Waiting and as you chose there"
        }
        onClick={() => void turn()}
      >
        {on ? <BellRing size={15} /> : <Bell size={15} />}
        {on ? "Following" : "Follow"}
      </button>
      <Refused refused={refused} />
    </>
  );
}
