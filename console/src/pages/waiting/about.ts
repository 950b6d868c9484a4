import type { Schemas } from "../../api/client";

type Notice = Schemas["NoticeView"];

/** Notices about one thing, the newest first. */
export interface About {
  path: string;
  newest: Notice;
  earlier: Notice[];
  unread: boolean;
}

/** By what they are about, the newest first. */
export function byThing(notices: Notice[]): About[] {
  const groups = new Map<string, About>();
  for (const notice of notices) {
    const group = groups.get(notice.path);
    if (group) {
      group.earlier.push(notice);
      group.unread ||= !notice.read;
    } else {
      groups.set(notice.path, { path: notice.path, newest: notice, earlier: [], unread: !notice.read });
    }
  }
  return [...groups.values()];
}
