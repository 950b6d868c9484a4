import { useQuery, useQueryClient } from "@tanstack/react-query";
import { me } from "./queries";

/** What the person who is signed in may do; nothing, until that is known. */
export function useMay(): (action: string) => boolean {
  const signedIn = useQuery(me());
  return (action) => signedIn.data?.may.includes(action) ?? false;
}

/** Everything is read anew after a change. */
export function useFresh() {
  const client = useQueryClient();
  return () => client.invalidateQueries();
}
