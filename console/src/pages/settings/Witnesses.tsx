import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { useFresh } from "../../api/may";
import { api, need, type Schemas } from "../../api/client";
import { Ask } from "../../design/Ask";
import { Digest, Trouble } from "../../design/parts";
import { At } from "../../design/time";
import { Sentence, Sheet } from "./parts";

/** What others keep so that the trail can be held against it: the keys that sign, and signed heads. */
export function Witnesses({ manages }: { manages: boolean }) {
  const keys = useQuery({ queryKey: ["audit", "keys"], queryFn: () => need(api.GET("/api/v1/audit/keys")) });
  const witnesses = useQuery({
    queryKey: ["audit", "witnesses"],
    queryFn: () => need(api.GET("/api/v1/audit/witnesses")),
  });
  return (
    <Sheet
      title="What others keep"
      about="Whoever keeps a head, or a key, can show later that nothing before it was altered."
    >
      {keys.isLoadingError && <Trouble error={keys.error} />}
      {keys.data && <Keys keys={keys.data} manages={manages} />}
      {witnesses.isLoadingError && <Trouble error={witnesses.error} />}
      {witnesses.data && <Heads of={witnesses.data} />}
    </Sheet>
  );
}

function Keys({ keys: { keys, text }, manages }: { keys: Schemas["KeysView"]; manages: boolean }) {
  const fresh = useFresh();
  return (
    <>
      <Sentence
        change={
          manages && (
            <Ask
              small
              label="New key"
              title="A new key that signs"
              what={
                <p>
                  The old key signs the new one, and is deleted: nobody can sign with it again. What it signed stays
                  good. Whoever keeps the keys can still verify, and needs the new one too.
                </p>
              }
              act="Make it"
              reason="Why"
              needed
              onAct={async (reason) => {
                await need(api.POST("/api/v1/audit/keys", { body: { reason } }));
                await fresh();
              }}
            />
          )
        }
      >
        <b>The key that signs heads and statements</b>
        {keys
          .slice()
          .reverse()
          .map((each) => (
            <span key={each.sha256} className="block text-[13px]">
              <Digest value={each.sha256} /> {each.since ? <At time={each.since} /> : "from the first day"}
              {each.until ? (
                <>
                  {" to "}
                  <At time={each.until} />
                </>
              ) : (
                " until now"
              )}
            </span>
          ))}
        <a
          className="text-[13px]"
          href={`data:text/plain;charset=utf-8,${encodeURIComponent(`${text}\n`)}`}
          download="paseo-key.txt"
        >
          Download it
        </a>
      </Sentence>
    </>
  );
}

const Handed = ({ size, at }: Schemas["HandedView"]) => (
  <>
    that of {size} entries, <At time={at} />
  </>
);

function Heads({ of: { every, told, receivers, file } }: { of: Schemas["WitnessesView"] }) {
  return (
    <Sentence>
      <b>Heads, at most one in {lasting(every)}</b>
      {receivers.map((name) => (
        <span key={name} className="block text-[13px]">
          <Link to={`/settings/receivers/${name}`}>{name}</Link> is told them
          {told && (
            <>
              , the newest <Handed {...told} />
            </>
          )}
        </span>
      ))}
      {file && (
        <span className="block text-[13px]">
          <code>{file.path}</code> has them
          {file.written && (
            <>
              , the newest <Handed {...file.written} />
            </>
          )}
          {file.trouble && (
            <span className="bad block [overflow-wrap:anywhere]">
              It cannot be written: {file.trouble}. What is due is written once it can.
            </span>
          )}
        </span>
      )}
      {receivers.length === 0 && !file && (
        <span className="block text-[13px]">
          <span className="warn">Nobody else keeps them.</span> A <Link to="/settings/receivers">receiver</Link> of
          audit.head does, or the file that an operator sets as <code>paseo.heads.file</code>.
        </span>
      )}
    </Sentence>
  );
}

/** A length as ISO 8601 has it, in words. */
function lasting(iso: string) {
  const [, hours, minutes, seconds] = /^PT(?:(\d+)H)?(?:(\d+)M)?(?:([\d.]+)S)?$/.exec(iso) ?? [];
  return [hours && `${hours} h`, minutes && `${minutes} min`, seconds && `${seconds} s`].filter(Boolean).join(" ");
}
