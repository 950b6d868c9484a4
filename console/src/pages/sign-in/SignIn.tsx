import { useQueryClient } from "@tanstack/react-query";
import { useState, type FormEvent } from "react";
import { useNavigate, useSearchParams } from "react-router";
import { api, need } from "../../api/client";
import { me } from "../../api/queries";

/** Asks who is there. What was typed stays when it is refused. */
export default function SignIn() {
  const [params] = useSearchParams();
  const navigate = useNavigate();
  const client = useQueryClient();
  const [name, setName] = useState("");
  const [password, setPassword] = useState("");
  const [refused, setRefused] = useState("");
  const [busy, setBusy] = useState(false);
  const then = params.get("then") ?? "/";

  const submit = async (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    setRefused("");
    try {
      // The first look brings the proof that the sign-in itself carries.
      await api.GET("/api/v1/session");
      await need(api.POST("/api/v1/session", { body: { name, password } }));
      client.clear();
      await client.fetchQuery(me());
      await navigate(then.startsWith("/") && !then.startsWith("//") ? then : "/");
    } catch (error) {
      setRefused(error instanceof Error ? error.message : String(error));
    } finally {
      setBusy(false);
    }
  };

  return (
    <main className="sign-in">
      <form className="sheet" onSubmit={(event) => void submit(event)}>
        <h1>Sign in to Paseo</h1>
        <p className="quiet">Which build is running where, how did it get there, and who said it could?</p>
        <label htmlFor="name">Name</label>
        <input id="name" className="input" value={name} onChange={(event) => setName(event.target.value)} autoComplete="username" required autoFocus />
        <label htmlFor="password">Password</label>
        <input id="password" className="input" type="password" value={password} onChange={(event) => setPassword(event.target.value)}
          autoComplete="current-password" required aria-invalid={refused !== ""} aria-describedby="refused" />
        <p id="refused" className="field-error" role="alert">{refused}</p>
        <button type="submit" className="btn primary big" disabled={busy}>{busy ? "Signing in…" : "Sign in"}</button>
      </form>
    </main>
  );
}
