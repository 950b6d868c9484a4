import { createContext, useContext, useEffect, useSyncExternalStore, type ReactNode } from "react";

/** The zone in which a page's times are said; absent: the reader's. */
const Zone = createContext<string | undefined>(undefined);

const frame = new EventTarget();
let ofPage: string | undefined;

const tell = (zone: string | undefined) => {
  ofPage = zone;
  frame.dispatchEvent(new Event("zone"));
};
const listen = (heard: () => void) => {
  frame.addEventListener("zone", heard);
  return () => frame.removeEventListener("zone", heard);
};

/** What is within says its times in this zone, as do the sentences of the gate; the ground line names it. */
export function In({ zone, children }: { zone: string; children: ReactNode }) {
  useEffect(() => {
    tell(zone);
    return () => tell(undefined);
  }, [zone]);
  return <Zone value={zone}>{children}</Zone>;
}

export const useZone = () => useContext(Zone);

/** The zone of the page that is shown, for what stands around it. */
export const useZoneOfPage = () => useSyncExternalStore(listen, () => ofPage);

export const OWN = Intl.DateTimeFormat().resolvedOptions().timeZone;
