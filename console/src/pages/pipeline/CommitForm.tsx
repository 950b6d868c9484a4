import { Download, GitCommitHorizontal } from "lucide-react";
import { useState } from "react";
import { Link } from "react-router";
import { api, need, type Schemas } from "../../api/client";

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
  const [refused, setRefused] = useState("");
  const [done, setDone] = useState<Schemas["CommittedView"]>();
  const [busy, setBusy] = useState(false);
  const path = { name: component };
  const body = { branch, base: file.commit, text, message };
  const trying = async (what: () => Promise<void>) => {
    setRefused("");
    setBusy(true);
    try {
      await what();
    } catch (error) {
      setRefused(error instanceof Error ? error.message : String(error));
    } finally {
      setBusy(false);
    }
  };
  const commit = () =>
    trying(async () => {
      const committed = await need(api.POST("/api/v1/components/{name}/pipeline/commits", { params: { path }, body }));
      setDone(committed);
      setMessage("");
      onCommitted(committed);
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
      className="commit"
      onSubmit={(event) => {
        event.preventDefault();
        void commit();
      }}
    >
      <label>
        Branch
        <input value={branch} onChange={(event) => setBranch(event.target.value)} required maxLength={200} />
      </label>
      <label className="wide">
        Message
        <input
          id="message"
          value={message}
          onChange={(event) => setMessage(event.target.value)}
          placeholder="What changes, and why"
          required
          maxLength={2000}
        />
      </label>
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
      <p role="status" className={refused ? "bad" : "quiet"}>
        {refused ||
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
            "In force for the very next event, as soon as it is committed."
          ))}
      </p>
    </form>
  );
}
