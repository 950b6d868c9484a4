import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Bookmark, Trash2 } from "lucide-react";
import { Popover } from "radix-ui";
import { useState } from "react";
import { Link, useLocation } from "react-router";
import { api, need } from "../../api/client";
import { useMay } from "../../api/may";
import { me, views } from "../../api/queries";
import { Refused, TextField, useTrying } from "../../design/form";

/** Views of this page that were kept, and keeping this one: what it asks for, for oneself or for everybody. */
export function Views({ small }: { small?: boolean }) {
  const { pathname, search } = useLocation();
  const kept = useQuery(views());
  const own = useQuery(me()).data?.name;
  const may = useMay();
  const client = useQueryClient();
  const [name, setName] = useState("");
  const [shared, setShared] = useState(false);
  const { trying, busy, refused } = useTrying();
  const here = (kept.data ?? []).filter((each) => each.address.split("?")[0] === pathname);
  const fresh = () => client.invalidateQueries({ queryKey: ["views"] });
  const keep = () =>
    trying(async () => {
      await need(api.PUT("/api/v1/views", { body: { name, address: pathname + search, shared } }));
      setName("");
      await fresh();
    });
  const drop = (id: number) =>
    trying(async () => {
      await need(api.DELETE("/api/v1/views/{id}", { params: { path: { id } } }));
      await fresh();
    });
  return (
    <Popover.Root>
      <Popover.Trigger className={`btn ${small ? "small" : ""}`}>
        <Bookmark size={15} />
        Views{here.length > 0 && ` (${here.length})`}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content className="sheet z-50 w-[320px] p-4 shadow-lg" align="end" sideOffset={6}>
          <b>Kept views of this page</b>
          {here.length === 0 && <p className="quiet">None so far.</p>}
          <ul className="m-0 list-none p-0">
            {here.map((each) => (
              <li key={each.id} className="flex items-center gap-2 py-1">
                <Popover.Close asChild>
                  <Link className="min-w-0 flex-1 truncate" to={each.address} title={each.address}>
                    {each.name}
                  </Link>
                </Popover.Close>
                <span className="quiet">{each.by === own ? (each.shared ? "for all" : "yours") : `by ${each.by}`}</span>
                {(each.by === own || may("MANAGE_ACCOUNTS")) && (
                  <button
                    type="button"
                    className="icon small"
                    aria-label={`Drop ${each.name}`}
                    disabled={busy}
                    onClick={() => void drop(each.id)}
                  >
                    <Trash2 size={14} />
                  </button>
                )}
              </li>
            ))}
          </ul>
          <form
            className="mt-3 grid gap-2 border-t border-line pt-3"
            onSubmit={(event) => {
              event.preventDefault();
              void keep();
            }}
          >
            <TextField label="Keep this one as" at="/name" refused={refused} value={name} onType={setName} />
            <label className="flex items-center gap-2">
              <input type="checkbox" checked={shared} onChange={(event) => setShared(event.target.checked)} />
              for everybody
            </label>
            <Refused refused={refused} beside={["/name"]} />
            <button type="submit" className="btn" disabled={busy || name.trim() === ""}>
              Keep it
            </button>
          </form>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
