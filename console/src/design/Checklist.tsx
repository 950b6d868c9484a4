import { Camera, Check, RotateCcw, X } from "lucide-react";
import { useState } from "react";
import { api, need, type Schemas } from "../api/client";
import { Glyph } from "./Glyph";
import { At } from "./time";

const CHECKLISTS =
  "mt-3 [&_h3]:text-[13px] [&_h3]:mt-2 [&_h3]:mx-0 [&_h3]:mb-1.5 [&_li]:grid " +
  "[&_li]:grid-cols-[auto_minmax(0,1fr)_auto] [&_li]:gap-3 [&_li]:items-start [&_li]:py-2.5 [&_li]:px-0 " +
  "[&_li]:border-t [&_li]:border-t-line [&_li>div>*]:block [&_li>div>*]:text-[13px] [&_li>div>*]:leading-4.5 " +
  "[&_li.failed_b]:text-bad [&_img]:max-w-40 [&_img]:max-h-25 [&_img]:[border-radius:var(--r-1,6px)] " +
  "[&_img]:mt-1 [&_img]:border [&_img]:border-line max-[900px]:[&_li]:grid-cols-[auto_minmax(0,1fr)]";

type List = Schemas["ListView"];
type Said = { item: string; outcome: string; note?: string; picture?: string };

/** A checklist: everyone sees how far it is; whoever ticks, ticks here. */
export function Checklist({
  lists,
  mine,
  onTick,
}: {
  lists: List[];
  mine: boolean;
  onTick: (said: Said) => Promise<void>;
}) {
  if (lists.length === 0) return null;
  return (
    <section className={CHECKLISTS} aria-label="Checklist">
      {lists.map((list) => (
        <div key={list.from.join()}>
          <h3>
            {list.items.filter((item) => item.outcome === "done").length} of {list.items.length} ticked{" "}
            <span className="quiet">by {list.from.join(" or ")}</span>
          </h3>
          <ul>
            {list.items.map((item) => (
              <Item key={item.item} item={item} mine={mine} onTick={onTick} />
            ))}
          </ul>
        </div>
      ))}
    </section>
  );
}

function Item({
  item,
  mine,
  onTick,
}: {
  item: Schemas["ItemView"];
  mine: boolean;
  onTick: (said: Said) => Promise<void>;
}) {
  const [note, setNote] = useState("");
  const [failing, setFailing] = useState(false);
  const [picture, setPicture] = useState<string>();
  const [wrong, setWrong] = useState("");
  const said = async (outcome: string) => {
    try {
      await onTick({ item: item.item, outcome, note, picture });
      setNote("");
      setFailing(false);
      setPicture(undefined);
      setWrong("");
    } catch (error) {
      setWrong(error instanceof Error ? error.message : String(error));
    }
  };
  const upload = async (file: File | undefined) => {
    if (!file) return;
    const answer = await fetch("/api/v1/pictures", {
      method: "POST",
      body: file,
      headers: {
        "Content-Type": file.type,
        "X-XSRF-TOKEN": decodeURIComponent(/XSRF-TOKEN=([^;]+)/.exec(document.cookie)?.[1] ?? ""),
      },
    });
    const body = (await answer.json()) as { digest?: string; detail?: string };
    if (answer.ok) setPicture(body.digest);
    else setWrong(body.detail ?? "The picture was not uploaded.");
  };
  const id = `note-${item.item.replace(/\W+/g, "-")}`;
  return (
    <li className={item.outcome ?? "open"}>
      <Glyph
        shape={item.outcome === "done" ? "passed" : item.outcome === "failed" ? "failed" : "waiting"}
        tone={item.outcome === "done" ? "good" : item.outcome === "failed" ? "bad" : mine ? "need" : "rest"}
      />
      <div>
        <b>
          {item.item}
          <span className="sr-only">, {item.outcome ?? "not ticked yet"}</span>
        </b>
        {item.by && (
          <span className="quiet">
            {item.outcome === "failed" ? "failed, says" : "ticked by"} {item.by} {item.at && <At time={item.at} />}
          </span>
        )}
        {item.note && <span>“{item.note}”</span>}
        {item.picture && (
          <a href={`/api/v1/pictures/${item.picture}`} target="_blank" rel="noreferrer">
            <img src={`/api/v1/pictures/${item.picture}`} alt={`Given with ${item.item}`} />
          </a>
        )}
        {failing && (
          <span className="mt-1.5 flex flex-wrap gap-1.5">
            <label htmlFor={id} className="sr-only">
              What failed
            </label>
            <input
              id={id}
              className="input min-w-40 flex-1"
              autoFocus
              value={note}
              placeholder="What failed"
              maxLength={2000}
              onChange={(event) => setNote(event.target.value)}
            />
            <label className="btn small">
              <Camera size={14} />
              {picture ? "1 picture" : "Picture"}
              <input
                type="file"
                accept="image/png,image/jpeg"
                className="sr-only"
                onChange={(event) => void upload(event.target.files?.[0])}
              />
            </label>
            <button type="button" className="btn small danger" onClick={() => void said("failed")}>
              It failed
            </button>
          </span>
        )}
        <p className="field-error" role="alert">
          {wrong}
        </p>
      </div>
      {mine && (
        <span className="flex gap-1.5 max-[900px]:col-start-2">
          {item.outcome ? (
            <button type="button" className="btn small" onClick={() => void said("cleared")}>
              <RotateCcw size={13} />
              Take back
            </button>
          ) : (
            <>
              <button
                type="button"
                className="btn small yes"
                onClick={() => void said("done")}
                aria-label={`Tick ${item.item}`}
              >
                <Check size={14} />
                Tick
              </button>
              <button
                type="button"
                className="btn small"
                aria-expanded={failing}
                onClick={() => setFailing(!failing)}
                aria-label={`${item.item} failed`}
              >
                <X size={14} />
                Fails
              </button>
            </>
          )}
        </span>
      )}
    </li>
  );
}

/** Says what was found about an item of a deployment's list. */
export const tickDeployment = async (id: number, said: Said) => {
  await need(api.POST("/api/v1/deployments/{id}/ticks", { params: { path: { id } }, body: said }));
};

/** The same of a passage's. */
export const tickPassage = async (id: number, said: Said) => {
  await need(api.POST("/api/v1/passages/{id}/ticks", { params: { path: { id } }, body: said }));
};
