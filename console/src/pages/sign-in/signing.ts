import { useQueryClient } from "@tanstack/react-query";
import { api, need } from "../../api/client";
import { me } from "../../api/queries";
import { sessionEnded } from "../../api/session";
import { useTrying } from "../../design/form";

/** Signs in with a password; what was known of whoever was there before is forgotten, unless it is the same person. */
export function useSignIn() {
  const client = useQueryClient();
  const { trying, busy, refused } = useTrying();
  const signIn = (name: string, password: string, then?: () => void | Promise<void>) =>
    trying(async () => {
      // A first look brings the proof that the sign-in itself carries.
      await need(api.GET("/api/v1/sign-in-ways"));
      await need(api.POST("/api/v1/session", { body: { name, password } }));
      sessionEnded(false);
      if (client.getQueryData(me().queryKey)?.name === name) {
        await client.invalidateQueries();
      } else {
        client.clear();
        await client.fetchQuery(me());
      }
      await then?.();
    });
  return { signIn, busy, refused };
}
