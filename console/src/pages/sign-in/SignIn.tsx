import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate, useSearchParams } from "react-router";
import { api, need } from "../../api/client";
import { signInWays } from "../../api/queries";
import { Refused, TextField, useTrying } from "../../design/form";
import { useSignIn } from "./signing";

const SIGN_IN =
  "min-h-[calc(100vh_-_64px)] grid place-items-center [&_form]:w-[min(400px,100%)] [&_form]:p-7 [&_form]:grid " +
  "[&_form]:gap-1.5 [&_label]:font-semibold [&_label]:text-[13px] [&_label]:mt-2.5 [&_.btn]:mt-1.5";

const BECAUSE: Record<string, string> = {
  disabled: "This account was disabled. What it approved stays; an administrator can say more.",
  unknown: "There is no account here for you yet; an administrator can add one with your mail address.",
  provider: "Signing in with the provider failed. Try again, or use your password.",
  "provider-away": "The sign-in provider does not answer. Try again soon, or use your password.",
};

/** Asks who is there. What was typed stays when it is refused. */
export default function SignIn() {
  const [params] = useSearchParams();
  const navigate = useNavigate();
  const [name, setName] = useState("");
  const [password, setPassword] = useState("");
  const { signIn, busy, refused } = useSignIn();
  const ways = useQuery(signInWays());
  const [coded, setCoded] = useState(false);
  const then = params.get("then") ?? "/";
  if (coded)
    return (
      <ByCode
        onSet={(whose) => {
          setName(whose);
          setPassword("");
          setCoded(false);
        }}
        onBack={() => setCoded(false)}
      />
    );

  return (
    <main className={SIGN_IN}>
      <form
        className="sheet"
        onSubmit={(event) => {
          event.preventDefault();
          void signIn(name, password, () => navigate(then.startsWith("/") && !then.startsWith("//") ? then : "/"));
        }}
      >
        <h1>Sign in to Paseo</h1>
        <p className="quiet">Which build is running where, how did it get there, and who said it could?</p>
        {BECAUSE[params.get("because") ?? ""] && (
          <p className="field-error" role="status">
            {BECAUSE[params.get("because") ?? ""]}
          </p>
        )}
        <label htmlFor="name">Name</label>
        <input
          id="name"
          className="input"
          value={name}
          onChange={(event) => setName(event.target.value)}
          autoComplete="username"
          required
          autoFocus
        />
        <label htmlFor="password">Password</label>
        <input
          id="password"
          className="input"
          type="password"
          value={password}
          onChange={(event) => setPassword(event.target.value)}
          autoComplete="current-password"
          required
          aria-invalid={refused !== undefined}
          aria-describedby="refused"
        />
        <p id="refused" className="field-error" role="alert">
          {refused?.message}
        </p>
        <button type="submit" className="btn primary big" disabled={busy}>
          {busy ? "Signing in…" : "Sign in"}
        </button>
        <button type="button" className="btn quiet-btn" onClick={() => setCoded(true)}>
          I have a code
        </button>
        {ways.data?.provider && (
          <a className="btn big" href="/sign-in/with-provider">
            {ways.data.provider}
          </a>
        )}
      </form>
    </main>
  );
}

/** A new password, by a one-time code from an administrator. */
function ByCode({ onSet, onBack }: { onSet: (name: string) => void; onBack: () => void }) {
  const [code, setCode] = useState("");
  const [password, setPassword] = useState("");
  const { trying, busy, refused } = useTrying();
  const set = () =>
    trying(async () => {
      const whose = await need(api.PUT("/api/v1/password-by-code", { body: { code: code.trim(), password } }));
      onSet(whose.name);
    });
  return (
    <main className={SIGN_IN}>
      <form
        className="sheet"
        onSubmit={(event) => {
          event.preventDefault();
          void set();
        }}
      >
        <h1>Set your password</h1>
        <p className="quiet">The code is good once, for a day. Then sign in with your name and the new password.</p>
        <TextField label="Code" at="/code" refused={refused} value={code} onType={setCode} />
        <TextField label="New password" at="/password" secret refused={refused} value={password} onType={setPassword} />
        <Refused refused={refused} beside={["/code", "/password"]} />
        <button type="submit" className="btn primary big" disabled={busy}>
          Set it
        </button>
        <button type="button" className="btn quiet-btn" onClick={onBack}>
          Back to signing in
        </button>
      </form>
    </main>
  );
}
