import { createContext, useContext, useMemo, useState, type ReactNode } from "react";
import { Link } from "react-router";
import { setOf } from "./dense";

interface Picked {
  /** The version that was picked of each component. */
  versions: ReadonlyMap<string, string>;
  toggle: (component: string, version: string) => void;
}

const Context = createContext<Picked | undefined>(undefined);

/** Versions are picked below, one of each component, and made into a set. */
export function Picking({ onEnd, children }: { onEnd: () => void; children: ReactNode }) {
  const [versions, setVersions] = useState<ReadonlyMap<string, string>>(new Map());
  const picked = useMemo(
    () => ({
      versions,
      toggle: (component: string, version: string) =>
        setVersions((before) => {
          const after = new Map(before);
          if (before.get(component) === version) after.delete(component);
          else after.set(component, version);
          return after;
        }),
    }),
    [versions],
  );
  const said = [...versions].map(([component, version]) => `${component} ${version}`).join(", ");
  return (
    <Context value={picked}>
      <div className="sheet mb-4 flex flex-wrap items-center gap-3 px-5 py-3" role="status">
        <span className="min-w-0 grow">
          {said
            ? `Picked: ${said}.`
            : "Tick the versions that are to go together: one of each component, in their order."}
        </span>
        {versions.size > 1 && (
          <Link className="btn primary" to={setOf(versions)}>
            Make a set of them
          </Link>
        )}
        <button type="button" className="btn" onClick={onEnd}>
          Stop picking
        </button>
      </div>
      {children}
    </Context>
  );
}

/** Whether a version goes into the set; nothing while none is picked. */
export function PickBox({ component, version }: { component: string; version: string }) {
  const picked = useContext(Context);
  if (!picked) return null;
  return (
    <input
      type="checkbox"
      aria-label={`${component} ${version} goes into the set`}
      checked={picked.versions.get(component) === version}
      onChange={() => picked.toggle(component, version)}
    />
  );
}
