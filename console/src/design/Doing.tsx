import { Dialog } from "radix-ui";
import { useState, type ReactNode } from "react";
import { restOf, useTrying } from "./form";
import { DECIDE_BUTTONS, OVERLAY, DIALOG } from "./classes";

interface DoingProps {
  /** On the button that opens it. */
  label: ReactNode;
  title: string;
  /** What will happen, to what. */
  what?: ReactNode;
  /** On the button that does it. */
  act: string;
  danger?: boolean | undefined;
  small?: boolean;
  disabled?: boolean | undefined;
  /** What is asked, told what was refused. */
  fields?: ((refused: Error | undefined) => ReactNode) | undefined;
  /** The JSON pointers of which a field says itself what is wrong. */
  beside?: string[];
  /** Does it; what it throws is shown, and what was typed stays. What it gives is shown once, until it is closed. */
  onAct: () => Promise<ReactNode>;
}

/** A button whose dialog says what will happen, to what, and asks for what it needs, before it happens. */
export function Doing({ label, title, what, act, danger, small, disabled, fields, beside = [], onAct }: DoingProps) {
  const [open, setOpen] = useState(false);
  const [given, setGiven] = useState<ReactNode>();
  const { trying, busy, refused } = useTrying();
  const go = () =>
    trying(async () => {
      const shown = await onAct();
      if (shown) setGiven(shown);
      else setOpen(false);
    });
  const change = (to: boolean) => {
    setOpen(to);
    setGiven(undefined);
  };
  return (
    <Dialog.Root open={open} onOpenChange={change}>
      <Dialog.Trigger asChild>
        <button type="button" className={`btn ${danger ? "danger" : ""} ${small ? "small" : ""}`} disabled={disabled}>
          {label}
        </button>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className={OVERLAY} />
        <Dialog.Content className={`${DIALOG} sheet`}>
          <Dialog.Title>{title}</Dialog.Title>
          <Dialog.Description asChild>
            <div>{given ?? what}</div>
          </Dialog.Description>
          {given ? (
            <Dialog.Close asChild>
              <button type="button" className="btn primary big">
                Done
              </button>
            </Dialog.Close>
          ) : (
            <form
              onSubmit={(event) => {
                event.preventDefault();
                void go();
              }}
            >
              {fields?.(refused)}
              <p className="field-error" role="alert">
                {restOf(refused, beside)}
              </p>
              <div className={DECIDE_BUTTONS}>
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
          )}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
