import { Dialog } from "radix-ui";
import { useEffect, useState } from "react";
import { useLocation, useNavigate } from "react-router";
import { look } from "./rows";
import { OVERLAY, DIALOG } from "../design/classes";

/** What a key does, wherever one is. */
const PAGES: Record<string, [path: string, word: string]> = {
  "1": ["/", "Whereabouts"],
  "2": ["/waiting", "Waiting"],
  "3": ["/components", "Components"],
  "4": ["/sets", "Sets"],
  "5": ["/chain", "Chain"],
  "6": ["/settings/yours", "Settings"],
};

const writes = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.isContentEditable || ["INPUT", "TEXTAREA", "SELECT"].includes(target.tagName));

/** The keys that hold on every page; what one writes is left alone. */
export function useKeys() {
  const [finding, setFinding] = useState(false);
  const [help, setHelp] = useState(false);
  const navigate = useNavigate();
  const { pathname } = useLocation();
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "k") {
        event.preventDefault();
        setFinding(true);
        return;
      }
      if (
        event.ctrlKey ||
        event.metaKey ||
        event.altKey ||
        writes(event.target) ||
        document.querySelector("[role=dialog]")
      )
        return;
      if (event.key === "?") setHelp(true);
      const page = PAGES[event.key];
      if (page) void navigate(page[0]);
      if (event.key === "ArrowDown" || event.key === "ArrowUp") walk(event);
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, [navigate]);
  useEffect(() => {
    // A page names itself once it has what it shows.
    const timer = setTimeout(() => {
      const name = document.title.replace(/ · Paseo$/, "");
      if (pathname.split("/").length > 2 && !pathname.startsWith("/settings") && name !== "Paseo")
        look(localStorage, pathname, name);
    }, 1200);
    return () => clearTimeout(timer);
  }, [pathname]);
  return { finding, help, setFinding, setHelp };
}

/** From the link of one row to that of the next, in the list where one is. */
function walk(event: KeyboardEvent) {
  const row = (event.target as HTMLElement).closest?.("tr, [role=row], .map-row");
  const list = row?.parentElement;
  if (!row || !list) return;
  const rows = [...list.children];
  const next = rows[rows.indexOf(row) + (event.key === "ArrowDown" ? 1 : -1)];
  const first = next?.querySelector<HTMLElement>("a, button");
  if (!first) return;
  event.preventDefault();
  first.focus();
}

const HELP: [string, string][] = [
  ["Ctrl K or ⌘ K", "find anything: things, acts, pages"],
  [
    "1 to 6",
    Object.values(PAGES)
      .map(([, word]) => word)
      .join(", "),
  ],
  ["↓ ↑", "in a list: the next row, the one before"],
  ["Tab, Enter", "go to what can be pressed, and press it"],
  ["Esc", "close what lies over the page"],
  ["?", "this sheet"],
];

/** The keys, on a sheet. */
export const Keys = ({ onClose }: { onClose: () => void }) => (
  <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
    <Dialog.Portal>
      <Dialog.Overlay className={OVERLAY} />
      <Dialog.Content className={`${DIALOG} sheet`} aria-describedby={undefined}>
        <Dialog.Title>Keys</Dialog.Title>
        <dl className="m-0 grid grid-cols-[120px_minmax(0,1fr)] gap-x-4 gap-y-2">
          {HELP.map(([key, what]) => (
            <div key={key} className="contents">
              <dt>
                <kbd className="font-mono text-[13px] font-semibold">{key}</kbd>
              </dt>
              <dd className="m-0">{what}</dd>
            </div>
          ))}
        </dl>
      </Dialog.Content>
    </Dialog.Portal>
  </Dialog.Root>
);
