import { useSyncExternalStore } from "react";
import { redirect } from "react-router";

let ended = false;
const watching = new Set<() => void>();

/** Says that the session holds no more, or that it does again. Whatever page is open stays as it is. */
export function sessionEnded(now: boolean) {
  ended = now;
  watching.forEach((tell) => tell());
}

export const useSessionEnded = () =>
  useSyncExternalStore(
    (tell) => {
      watching.add(tell);
      return () => watching.delete(tell);
    },
    () => ended,
  );

/** Whoever comes without a session signs in first, so that no page asks what would be refused. */
export async function signedInFirst({ request }: { request: Request }) {
  const answer = await fetch("/api/v1/sign-in-ways").catch(() => undefined);
  const ways = answer?.ok ? ((await answer.json()) as { signedIn: boolean }) : undefined;
  if (ways && !ways.signedIn) {
    const { pathname, search } = new URL(request.url);
    return redirect(
      pathname === "/" && !search ? "/sign-in" : `/sign-in?then=${encodeURIComponent(pathname + search)}`,
    );
  }
  return null;
}
