import { useQuery } from "@tanstack/react-query";
import { useEffect, useSyncExternalStore } from "react";
import type { Schemas } from "./client";
import { notices } from "./queries";

const ON = "paseo-notify";
const SHOWN = "paseo-notified";
/** A page that is not looked at has no live connection: it asks once a minute. */
const EVERY = 60_000;

/** Those that nobody has shown yet: unread, and newer than the last that was. */
export const fresh = (all: Schemas["NoticeView"][], shown: number) =>
  all.filter((each) => !each.read && each.id > shown);

/** What this page has shown, by the number of its notice, until it is read or decided. */
const onScreen = new Map<number, Notification>();

/** Closes what was shown and needs nobody any more. */
function takeAway(all: Schemas["NoticeView"][]) {
  const unread = new Set(all.filter((each) => !each.read).map((each) => each.id));
  for (const [id, shown] of onScreen) {
    if (unread.has(id)) continue;
    shown.close();
    onScreen.delete(id);
  }
}

const watching = new Set<() => void>();
const supported = () => typeof Notification !== "undefined";

/** Whether notices are shown by the browser too. */
export const useTelling = () =>
  useSyncExternalStore(
    (tell) => {
      watching.add(tell);
      return () => watching.delete(tell);
    },
    () => supported() && localStorage.getItem(ON) === "on" && Notification.permission === "granted",
  );

/** Asks the browser whether it may, where that was not asked yet. What it said where it may not. */
export async function tellInBrowser(on: boolean): Promise<string> {
  if (!supported()) return "This browser shows no notifications of pages.";
  if (on && (await Notification.requestPermission()) !== "granted")
    return "The browser does not allow it; its settings for this page can.";
  localStorage.setItem(ON, on ? "on" : "off");
  watching.forEach((tell) => tell());
  return "";
}

/** Shows new notices by the browser while no page of the console is looked at; of several pages one does. */
export function useTellInBrowser() {
  const on = useTelling();
  const told = useQuery({
    ...notices(),
    enabled: on,
    refetchInterval: on ? EVERY : false,
    refetchIntervalInBackground: on,
  });
  const all = told.data?.notices;
  useEffect(() => {
    if (!on || !all) return;
    const show = () => {
      const before = Number(localStorage.getItem(SHOWN) ?? 0);
      const news = document.hidden && before > 0 ? fresh(all, before) : [];
      if (all[0]) localStorage.setItem(SHOWN, String(Math.max(before, all[0].id)));
      takeAway(all);
      for (const each of news.slice(0, 3)) {
        const shown = new Notification(each.title, { body: each.body.slice(0, 200), tag: each.path });
        shown.onclick = () => {
          window.focus();
          location.assign(each.path);
        };
        onScreen.set(each.id, shown);
      }
    };
    void (navigator.locks ? navigator.locks.request(SHOWN, show) : show());
  }, [on, all]);
}
