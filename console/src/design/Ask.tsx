import { Dialog } from "radix-ui";
import { useState, type ReactNode } from "react";

interface Asking {
  /** On the button that opens it. */
  label: ReactNode;
  title: string;
  /** What will happen, to what. */
  what: ReactNode;
  /** On the button that does it. */
  act: string;
  danger?: boolean;
  /** What is asked beside it; nothing where it is empty. */
  reason: string;
  needed?: boolean;
  /** Does it; what it throws is shown, and what was typed stays. */
  onAct: (reason: string) => Promise<unknown>;
  disabled?: boolean;
}

/** A button for what is dangerous: it says what will happen, to what, and asks why, before it happens. */
export function Ask({ label, title, what, act, danger, reason, needed, onAct, disabled }: Asking) {
  const [open, setOpen] = useState(false);
  const [text, setText] = useState("");
  const [wrong, setWrong] = useState("");
  const [busy, setBusy] = useState(false);
  const go = async () => {
    if (needed && text.trim() === "") {
      setWrong("Say why: it is kept in the audit trail.");
      return;
    }
    setBusy(true);
    try {
      await onAct(text.trim());
      setOpen(false);
      setText("");
      setWrong("");
    } catch (error) {
      setWrong(error instanceof Error ? error.message : String(error));
    } finally {
      setBusy(false);
    }
  };
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger asChild>
        <button type="button" className={`btn ${danger ? "danger" : ""}`} disabled={disabled}>
          {label}
        </button>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="overlay" />
        <Dialog.Content className="dialog sheet">
          <Dialog.Title>{title}</Dialog.Title>
          <Dialog.Description asChild>
            <div>{what}</div>
          </Dialog.Description>
          <form
            onSubmit={(event) => {
              event.preventDefault();
              void go();
            }}
          >
            {reason && (
              <label>
                <b>{reason}</b> <span className="quiet">{needed ? "required, " : ""}kept in the audit trail</span>
                <textarea
                  className="input"
                  rows={2}
                  value={text}
                  onChange={(event) => setText(event.target.value)}
                  maxLength={1000}
                  aria-invalid={wrong !== ""}
                />
              </label>
            )}
            <p className="field-error" role="alert">
              {wrong}
            </p>
            <div className="decide-buttons">
              <button type="submit" className={`btn ${danger ? "danger" : "primary"} big`} disabled={busy}>
                {act}
              </button>
              <Dialog.Close asChild>
                <button type="button" className="btn big">
                  Cancel
                </button>
              </Dialog.Close>
            </div>
          </form>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
