import { useQuery, useQueryClient } from "@tanstack/react-query";
import type { Schemas } from "./client";
import { me } from "./queries";

type Me = Pick<Schemas["MeView"], "may" | "there">;

/** Where something would be done; what is left out is not asked about. */
export interface Where {
  component?: string;
  environment?: string;
}

const fits = (limit: string | undefined, asked: string | undefined) =>
  limit === undefined || asked === undefined || limit === asked;

/** Whether somebody may do this, by a role that holds everywhere or there. */
export const allows = (who: Me | undefined, action: string, where: Where = {}): boolean =>
  who !== undefined &&
  (who.may.includes(action) ||
    who.there.some(
      (each) =>
        each.action === action && fits(each.component, where.component) && fits(each.environment, where.environment),
    ));

/** What the person who is signed in may do; nothing, until that is known. */
export function useMay(): (action: string, where?: Where) => boolean {
  const signedIn = useQuery(me());
  return (action, where) => allows(signedIn.data, action, where);
}

/** Everything is read anew after a change. */
export function useFresh() {
  const client = useQueryClient();
  return () => client.invalidateQueries();
}
