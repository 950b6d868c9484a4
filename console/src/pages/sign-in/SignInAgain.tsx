import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { useEffect, useState } from "react";
import { useLocation } from "react-router";
import { me, signInWays } from "../../api/queries";
import { sessionEnded } from "../../api/session";
import { Refused, TextField } from "../../design/form";
import { useSignIn } from "./signing";
import { DECIDE_BUTTONS, OVERLAY, DIALOG } from "../../design/classes";

/**
 * Whether somebody has signed in meanwhile in another page of this browser: the same person goes on here, another is
 * told of.
 */
function useSignedInElsewhere(known: string | undefined) {
  const client = useQueryClient();
  const ways = useQuery({ ...signInWays(), refetchInterval: 3_000 });
  const back = ways.isFetchedAfterMount && ways.data?.signedIn === true;
  const who = useQuery({ ...me(), queryKey: ["who-is-back"], enabled: back, staleTime: 0 }).data?.name;
  useEffect(() => {
    if (!back || who === undefined || who !== known) return;
    sessionEnded(false);
    void client.invalidateQueries();
  }, [back, who, known, client]);
  return { ways, other: back && who !== undefined && who !== known ? who : undefined };
}

/** The session has ended while a page is open: the page stays as it is, with what was typed, until one is back. */
export default function SignInAgain() {
  const known = useQuery({ ...me(), enabled: false }).data?.name;
  const [named, setNamed] = useState("");
  const [password, setPassword] = useState("");
  const { ways, other } = useSignedInElsewhere(known);
  const { signIn, busy, refused } = useSignIn();
  const { pathname, search } = useLocation();
  const name = known ?? named;
  return (
    <Dialog.Root open>
      <Dialog.Portal>
        <Dialog.Overlay className={OVERLAY} />
        <Dialog.Content className={`${DIALOG} sheet`} aria-describedby="session-ended">
          <Dialog.Title>Your session has ended</Dialog.Title>
          <p id="session-ended">
            {known ? `Sign in again as ${known}.` : "Sign in again."} The page behind this stays as it is, with what you
            typed; what was refused just now was not done.
          </p>
          {other && (
            <p className="bad" role="alert">
              This browser is signed in as {other} now. Sign in as {known} to go on here, or leave this page.
            </p>
          )}
          <form
            onSubmit={(event) => {
              event.preventDefault();
              void signIn(name, password);
            }}
          >
            {!known && <TextField label="Name" at="/name" refused={refused} value={named} onType={setNamed} />}
            <TextField label="Password" at="/password" secret refused={refused} value={password} onType={setPassword} />
            <Refused refused={refused} beside={["/name", "/password"]} />
            <div className={DECIDE_BUTTONS}>
              <button type="submit" className="btn primary big" disabled={busy}>
                {busy ? "Signing in…" : "Sign in"}
              </button>
              {ways.data?.provider && (
                <a className="btn big" href="/sign-in/with-provider" target="_blank" rel="noreferrer">
                  {ways.data.provider}, in another tab
                </a>
              )}
              <a className="btn big" href={`/sign-in?then=${encodeURIComponent(pathname + search)}`}>
                Leave this page
              </a>
            </div>
          </form>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
