import { useQueryClient } from "@tanstack/react-query";
import { Check, X } from "lucide-react";
import { useState } from "react";
import { HandOn } from "./HandOn";
import { api, need, type Schemas } from "../../api/client";
import { DECIDE, DECIDE_BUTTONS, MAY_NOT } from "../../design/classes";

type View = Schemas["DeploymentView"];

/** Yes or no to exactly what is shown; whoever may not decide reads why. */
export function Decide({ view, mine }: { view: View; mine: boolean }) {
  const client = useQueryClient();
  const [comment, setComment] = useState("");
  const [wrong, setWrong] = useState("");
  const [busy, setBusy] = useState(false);
  const { id, version, environment } = view.deployment;

  if (!mine) return <p className={MAY_NOT}>You do not decide here: {view.mayNot}.</p>;

  const rule = async (yes: boolean) => {
    if (comment.trim() === "" && (view.commentRequired || !yes)) {
      setWrong(
        yes ? `${environment} wants a comment with every decision.` : "Say why: the reason is kept in the audit trail.",
      );
      return;
    }
    setBusy(true);
    setWrong("");
    try {
      await need(
        api.POST("/api/v1/deployments/{id}/decision", {
          params: { path: { id } },
          body: { yes, comment, subject: view.subject },
        }),
      );
    } catch (error) {
      setWrong(error instanceof Error ? error.message : String(error));
    } finally {
      setBusy(false);
      await client.invalidateQueries({ queryKey: ["deployment", id] });
    }
  };

  return (
    <form id="decide" className={`decide ${DECIDE} print:hidden`} onSubmit={(event) => event.preventDefault()}>
      <label htmlFor="comment">
        <b>Your comment</b>{" "}
        <span className="quiet">{view.commentRequired ? "required, " : ""}kept in the audit trail</span>
      </label>
      <textarea
        id="comment"
        className="input"
        rows={2}
        value={comment}
        onChange={(event) => setComment(event.target.value)}
        placeholder="What you looked at, and why yes or no"
        aria-invalid={wrong !== ""}
        aria-describedby="wrong"
        maxLength={2000}
      />
      <p id="wrong" className="field-error" role="alert">
        {wrong}
      </p>
      <div className={DECIDE_BUTTONS}>
        <button type="button" className="btn yes big" disabled={busy} onClick={() => void rule(true)}>
          <Check size={17} />
          Approve {version}
        </button>
        <button type="button" className="btn danger big" disabled={busy} onClick={() => void rule(false)}>
          <X size={17} />
          Reject
        </button>
      </div>
      <HandOn id={id} />
      <p className="quiet small-text">
        A rejection ends this deployment; {environment} keeps {view.comparison.live ?? "what it has"}.
      </p>
    </form>
  );
}
