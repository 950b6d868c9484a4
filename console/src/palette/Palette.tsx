import { useQuery } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { useDeferredValue, useState } from "react";
import { useNavigate } from "react-router";
import { api, need } from "../api/client";
import { useMay } from "../api/may";
import { waiting, whereabouts } from "../api/queries";
import { actsOn, helpRow, lookedAt, pagesOf, rowsOf, thing, type Found, type Row } from "./rows";
import { OVERLAY } from "../design/classes";

const FRAME =
  "fixed top-[14vh] left-1/2 z-50 w-[640px] max-w-[calc(100vw-24px)] -translate-x-1/2 overflow-hidden rounded-[8px] " +
  "border border-line-strong bg-surface shadow-[0_16px_48px_rgb(0_0_0/.28)]";
const ROW = "flex cursor-pointer items-baseline gap-3 rounded-[4px] px-3 py-1.5 aria-selected:bg-slab";
const FIELD =
  "box-border block w-full border-0 border-b border-solid border-line bg-transparent px-4 py-3 text-[16px] " +
  "text-ink outline-none";

/** Finds things, acts on them and pages, from anywhere. */
export default function Palette({ onClose }: { onClose: () => void }) {
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className={OVERLAY} />
        <Dialog.Content className={FRAME} aria-describedby={undefined}>
          <Dialog.Title className="sr-only">Find anything</Dialog.Title>
          <Field onClose={onClose} />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function Field({ onClose }: { onClose: () => void }) {
  const [text, setText] = useState("");
  const [at, setAt] = useState(0);
  const navigate = useNavigate();
  const { rows, busy } = useRows(text);
  const open = (row: Row | undefined) => {
    if (!row) return;
    onClose();
    void navigate(row.to);
  };
  const steps: Record<string, number> = { ArrowDown: 1, ArrowUp: -1 };
  return (
    <>
      <input
        autoFocus
        className={FIELD}
        role="combobox"
        aria-label="Find anything"
        aria-expanded="true"
        aria-controls="palette-rows"
        aria-activedescendant={rows[at] && `palette-${at}`}
        placeholder="A component, a version, #41, a commit, a page…"
        value={text}
        onChange={(event) => {
          setText(event.target.value);
          setAt(0);
        }}
        onKeyDown={(event) => {
          const step = steps[event.key];
          if (step) {
            event.preventDefault();
            setAt((before) => Math.max(0, Math.min(rows.length - 1, before + step)));
          } else if (event.key === "Enter") {
            event.preventDefault();
            open(rows[at]);
          }
        }}
        maxLength={200}
        spellCheck={false}
      />
      <ul id="palette-rows" role="listbox" aria-label="What was found" className="m-0 list-none p-1">
        {rows.map((row, index) => (
          <li
            key={row.key}
            id={`palette-${index}`}
            role="option"
            aria-selected={index === at}
            onMouseMove={() => setAt(index)}
            onClick={() => open(row)}
            className={ROW}
          >
            <span className="w-[86px] flex-none text-[12px] text-ink-3">{row.kind}</span>
            <span className={`min-w-0 flex-none truncate ${ID.has(row.kind) ? "font-mono text-[13px]" : ""}`}>
              {row.name}
            </span>
            <span className="min-w-0 grow truncate text-[13px] text-ink-2">{row.sentence}</span>
            {index === at && <span className="flex-none text-[12px] text-ink-3">Enter</span>}
          </li>
        ))}
      </ul>
      {rows.length === 0 && (
        <p role="status" className="m-0 px-4 pb-3 text-ink-2">
          {busy ? "Looking…" : `Nothing is named “${text.trim()}”.`}
        </p>
      )}
    </>
  );
}

const ID = new Set(["component", "version", "run", "commit", "artifact", "environment", "account"]);

/** What stands below the field: of nothing, what needs one and what was looked at last. */
function useRows(text: string): { rows: Row[]; busy: boolean } {
  const sought = useDeferredValue(text.trim());
  const may = useMay();
  const where = useQuery(whereabouts());
  const needs = useQuery({ ...waiting(), enabled: sought === "" });
  const found = useQuery<Found[]>({
    queryKey: ["found", sought],
    enabled: sought !== "",
    staleTime: 10_000,
    placeholderData: (before) => before,
    queryFn: ({ signal }) => need(api.GET("/api/v1/found", { params: { query: { text: sought } }, signal })),
  });
  const told = useQuery({
    queryKey: ["docs", sought],
    enabled: sought.length > 2,
    staleTime: Infinity,
    placeholderData: (before) => before,
    queryFn: async () => (await import("../help/lookup")).lookUp(sought).slice(0, 3),
  });
  if (sought === "") {
    const waits: Row[] = (needs.data?.gates ?? []).slice(0, 3).map((each) => ({
      key: `waits ${each.deployment ?? each.passage} ${each.name}`,
      kind: "waits for you",
      name: `${each.component} ${each.version}`,
      sentence: `${each.environment}: ${each.name}`,
      to: each.deployment ? `/deployments/${each.deployment}` : `/passages/${each.passage}`,
    }));
    return { rows: rowsOf([...waits, ...lookedAt(localStorage)], [], pagesOf("")), busy: false };
  }
  const things = (found.data ?? []).map(thing);
  // On the most likely one: the arrows lead past the others to its acts.
  const first = found.data?.[0];
  const places = where.data?.rows.find((row) => row.component === first?.component)?.cells ?? [];
  const environments = places.map((cell) => cell.environment);
  return {
    rows: rowsOf(things, first ? actsOn(first, environments, may) : [], [
      ...pagesOf(sought),
      ...(told.data ?? []).map(helpRow),
    ]),
    busy: found.isFetching || sought !== text.trim(),
  };
}
