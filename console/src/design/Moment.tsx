import { format } from "date-fns";
import { CalendarClock } from "lucide-react";
import { Popover } from "radix-ui";
import { lazy, Suspense, useState } from "react";

const MomentForm = lazy(() => import("./MomentForm").then((part) => ({ default: part.MomentForm })));
const said = (moment: string) => format(new Date(moment), "EEE d MMM yyyy, HH:mm");

interface MomentProps {
  label: string;
  /** As the address has it; empty: none. */
  value: string;
  /** What is shown where there is none. */
  none: string;
  onChoose: (value: string) => void;
}

/** A past moment, as text or by one press. */
export function Moment({ label, value, none, onChoose }: MomentProps) {
  const [open, setOpen] = useState(false);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="btn small" aria-label={`${label}: ${value ? said(value) : none}`}>
        <CalendarClock size={14} />
        {value ? said(value) : none}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content className="sheet z-50 min-h-[180px] w-[290px] p-4 shadow-lg" align="end" sideOffset={6}>
          <Suspense>
            <MomentForm
              label={label}
              value={value}
              none={none}
              onTake={(taken) => {
                onChoose(taken);
                setOpen(false);
              }}
            />
          </Suspense>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
