import { Download, FlaskConical, GitCommitHorizontal } from "lucide-react";
import { useState } from "react";
import { Link } from "react-router";
import { api, need, type Schemas } from "../../api/client";
import { Field, restOf, useTrying } from "../../design/form";
import { COMMIT } from "../../design/classes";

interface Props {
  component: string;
  file: Schemas["PipelineView"];
  text: string;
  ready: boolean;
  onCommitted: (committed: Schemas["CommittedView"]) => void;
}

/** Commits the text to a branch, or makes a patch of it to take away. What is typed stays where it is refused. */
export function CommitForm({ component, file, text, ready, onCommitted }: Props) {
  const [branch, setBranch] = useState(file.ownBranch ?? file.branch);
  const [message, setMessage] = useState("");
  const { trying, busy, refused } = useTrying();
  const [done, setDone] = useState<Schemas["CommittedView"]>();
  const [tried, setTried] = useState<Schemas["CommittedView"]>();
  const path = { name: component };
  const body = { branch, base: file.commit, text, message };
  const beyond = restOf(refused, ["/branch", "/message"]);
  const commit = () =>
    trying(async () => {
      const committed = await need(api.POST("/api/v1/components/{name}/pipeline/commits", { params: { path }, body }));
      setDone(committed);
      setMessage("");
      onCommitted(committed);
    });
  const attempt = () =>
    trying(async () => {
      const tried = await need(
        api.POST("/api/v1/components/{name}/pipeline/trials", {
          params: { path },
          body: { base: file.commit, text },
        }),
      );
      setDone(undefined);
      setTried(tried);
    });
  const patch = () =>
    trying(async () => {
      const words = await need(
        api.POST("/api/v1/components/{name}/pipeline/patch", { params: { path }, body, parseAs: "text" }),
      );
      const link = document.createElement("a");
      link.href = URL.createObjectURL(new Blob([words as string], { type: "text/x-patch" }));
      link.download = `${component}-pipeline.patch`;
      link.click();
      URL.revokeObjectURL(link.href);
    });
  return (
    <form
      className={COMMIT}
      onSubmit={(event) => {
        event.preventDefault();
        void commit();
      }}
    >
      <Field label="Branch" at="/branch" refused={refused}>
        <input value={branch} onChange={(event) => setBranch(event.target.value)} required maxLength={200} />
      </Field>
      <Field label="Message" at="/message" refused={refused} className="wide">
        <input
          id="message"
          value={message}
          onChange={(event) => setMessage(event.target.value)}
          placeholder="What changes, and why"
          required
          maxLength={2000}
        />
      </Field>
      <button type="submit" className="btn primary" disabled={!ready || busy}>
        <GitCommitHorizontal size={16} />
        Commit to {branch || "…"}
      </button>
      <button
        type="button"
        className="btn quiet-btn"
        disabled={!ready || busy || !message}
        onClick={() => void patch()}
      >
        <Download size={15} />
        Patch
      </button>
      <button
        type="button"
        className="btn quiet-btn"
        disabled={!ready || busy}
        title="Runs it on a branch of its own, which is not trusted: no secrets, and its version goes nowhere"
        onClick={() => void attempt()}
      >
        <FlaskConical size={15} />
        Try it
      </button>
      {tried && (
        <p role="status" className="quiet">
          Tried on <code>{tried.branch}</code>, a branch of its own:{" "}
          <Link to={`/runs/${component}/${tried.run ?? 0}`}>#{tried.run}</Link>. It has no secrets, and its version goes
          nowhere.
        </p>
      )}
      <p role="status" className={beyond ? "bad" : "quiet"}>
        {beyond ||
          (done ? (
            <>
              Committed <code>{done.commit.slice(0, 8)}</code> to {done.branch}; it is in force.{" "}
              {done.run ? (
                <>
                  It started <Link to={`/runs/${component}/${done.run}`}>#{done.run}</Link>.
                </>
              ) : (
                done.reason && `It started nothing: ${done.reason}.`
              )}
            </>
          ) : file.ownBranch && branch === file.ownBranch && ready ? (
            `${file.branch} is trusted: your role commits to a branch of its own, from which it is merged.`
          ) : !ready ? (
            "A text with problems, or without a change, is not committed."
          ) : (
            "It takes effect at the next event after it is committed."
          ))}
      </p>
    </form>
  );
}
