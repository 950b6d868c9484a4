import { useState, type ReactNode } from "react";
import { Doing } from "./Doing";

interface Asking {
  /** On the button that opens it. */
  label: ReactNode;
  title: string;
  /** What will happen, to what. */
  what: ReactNode;
  /** On the button that does it. */
  act: string;
  danger?: boolean;
  small?: boolean;
  /** What is asked beside it; nothing where it is empty. */
  reason: string;
  needed?: boolean;
  /** Does it; what it throws is shown, and what was typed stays. */
  onAct: (reason: string) => Promise<unknown>;
  disabled?: boolean;
}

/** A button for what is dangerous: it asks why, before it happens. */
export function Ask({ reason, needed, onAct, ...doing }: Asking) {
  const [text, setText] = useState("");
  const field = (refused: Error | undefined) => (
    <label>
      <b>{reason}</b> <span className="quiet">{needed ? "required, " : ""}kept in the audit trail</span>
      <textarea
        className="input"
        rows={2}
        value={text}
        onChange={(event) => setText(event.target.value)}
        maxLength={1000}
        aria-invalid={refused !== undefined}
      />
    </label>
  );
  return (
    <Doing
      {...doing}
      fields={reason ? field : undefined}
      onAct={async () => {
        if (needed && text.trim() === "") throw new Error("Say why: it is kept in the audit trail.");
        await onAct(text.trim());
        setText("");
        return undefined;
      }}
    />
  );
}
