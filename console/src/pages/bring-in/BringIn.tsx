import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { useMay } from "../../api/may";
import { api, need, Problem, type Schemas } from "../../api/client";
import { whereabouts } from "../../api/queries";
import { Refused, useTrying } from "../../design/form";
import { Glyph } from "../../design/Glyph";
import { Questions } from "./Questions";
import { credentials, NOTHING, registration, Source, type Typed } from "./Source";
import { BRING_IN } from "../../design/classes";

type Draft = Schemas["DraftView"];
type Found = Schemas["RegistrationView"];

const BESIDE = ["/name", "/repository", "/trusted", "/allowed", "/file", "/credentials", "/answers"];

const DRAFT =
  "m-0 max-h-[calc(100vh-200px)] overflow-auto rounded-[4px] border border-line bg-log p-3 " +
  "font-mono text-[12px] leading-[18px] whitespace-pre-wrap [overflow-wrap:anywhere]";
const UPLOADS =
  "You write what brings it to hosts in the editor. Versions are published with paseo publish, by the API, or seen " +
  "in a store that is observed.";
const LOOKS =
  "A Maven or Gradle build, an npm package, Go, Rust, Python, a Makefile, scripts, a container file or plain files " +
  "are recognised. You correct the draft, with completion and exact errors, and commit it; then it is in force.";

/** A file of a component whose versions are built elsewhere; its recipe is written in the editor. */
const uploaded = (name: string) => `paseo: 1\ncomponent: ${name}\nversions: "0.1.{serial}"\n`;

/**
 * Brings a component in: looks at its repository, asks what the files do not tell, drafts a pipeline file, registers
 * it. What is typed stays where it is refused.
 */
export default function BringIn() {
  const navigate = useNavigate();
  const brings = useMay()("REGISTER_COMPONENT");
  const [typed, setTyped] = useState<Typed>(NOTHING);
  const [answers, setAnswers] = useState<Record<string, string>>({});
  const [draft, setDraft] = useState<Draft>();
  const [found, setFound] = useState<Found>();
  const [start, setStart] = useState(true);
  const { trying, busy, refused } = useTrying();
  const known = useQuery(whereabouts());
  const { name } = typed;
  const type = (change: Partial<Typed>) => {
    setTyped((before) => ({ ...before, ...change }));
    setDraft(undefined);
    setAnswers({});
  };
  const drafted = (said: Record<string, string>) =>
    need(
      api.POST("/api/v1/drafts", {
        body: {
          component: name,
          repository: typed.repository,
          file: typed.file.trim() || undefined,
          credentials: credentials(typed),
          answers: said,
          like: typed.like || undefined,
        },
      }),
    );
  const look = () =>
    trying(async () => {
      const next = await drafted(answers);
      setFound(
        next.free
          ? undefined
          : await need(api.POST("/api/v1/registrations", { body: registration(typed, next.branch) })),
      );
      setDraft(next);
    });
  /** What an answer makes pointless, or unfit, is no longer answered. */
  const fitting = async (all: Record<string, string>, question: string) => {
    let answered = all;
    for (;;) {
      try {
        return { answered, next: await drafted(answered) };
      } catch (error) {
        const fields = error instanceof Problem ? error.fields : [];
        const other = fields.map((each) => each.pointer.replace("/answers/", "")).find((name) => name !== question);
        if (other === undefined || !(other in answered)) throw error;
        answered = Object.fromEntries(Object.entries(answered).filter(([name]) => name !== other));
      }
    }
  };
  const answer = (question: string, said: string) =>
    trying(async () => {
      const { answered, next } = await fitting({ ...answers, [question]: said }, question);
      setAnswers(answered);
      setDraft(next);
    });
  const register = () =>
    trying(async () => {
      await need(api.POST("/api/v1/components", { body: registration(typed, draft?.branch) }));
      if (found?.starts && start) {
        const run = await need(api.POST("/api/v1/runs", { body: { component: name } }));
        await navigate(`/runs/${name}/${run.number}`);
      } else {
        await navigate(`/components/${name}/address`, { state: { text: draft?.text } });
      }
    });
  const registerUploaded = () =>
    trying(async () => {
      const body = { name, text: uploaded(name), trusted: ["main"], allowed: [], secrets: [] };
      await need(api.POST("/api/v1/components", { body }));
      await navigate(`/components/${name}/address`);
    });
  if (!brings)
    return (
      <>
        <title>Bring in a component · Paseo</title>
        <div className="title-line">
          <h1>Bring in a component</h1>
        </div>
        <p className="empty">
          Whoever may register components does this here: a release engineer or an administrator. You may not.
        </p>
      </>
    );
  const uploads = typed.from === "upload";
  const ready = draft && !draft.free;
  return (
    <>
      <title>Bring in a component · Paseo</title>
      <div className="title-line">
        <h1>Bring in a component</h1>
        <p>Name its repository: Paseo looks at what is in it and drafts a first pipeline file.</p>
      </div>
      <div className="grid grid-cols-[minmax(0,5fr)_minmax(0,6fr)] items-start gap-8 max-[1100px]:grid-cols-1">
        <section className={`sheet bring-in ${BRING_IN}`}>
          <form
            onSubmit={(event) => {
              event.preventDefault();
              void (uploads ? registerUploaded() : ready ? register() : look());
            }}
          >
            <Source
              typed={typed}
              known={known.data?.rows.map((row) => row.component) ?? []}
              refused={refused}
              onType={type}
            />
            {draft?.free && (
              <p className="bad" role="alert">
                There is a component named {name} already.{" "}
                <button type="button" className="btn small" onClick={() => type({ name: draft.free ?? name })}>
                  Take {draft.free}
                </button>
              </p>
            )}
            {ready && found && <FoundThere found={found} start={start} onStart={setStart} />}
            {ready && draft.asked.length > 0 && (
              <Questions
                key={draft.commit}
                asked={draft.asked}
                refused={refused}
                busy={busy}
                onAnswer={(question, said) => void answer(question, said)}
              />
            )}
            <Refused refused={refused} beside={BESIDE} />
            <button type="submit" className="btn primary" disabled={busy}>
              {uploads || ready ? `Register ${name}${ready && found?.warnings.length ? " anyway" : ""}` : "Look at it"}
            </button>
          </form>
        </section>
        <aside className="sticky top-16">
          <h2>{draft ? (draft.there ? "It has a pipeline file already" : "A first draft") : "What follows"}</h2>
          {draft ? (
            <pre className={DRAFT} tabIndex={0}>
              {draft.text}
            </pre>
          ) : (
            <p className="quiet">{uploads ? UPLOADS : LOOKS}</p>
          )}
        </aside>
      </div>
    </>
  );
}

/** What a registration would find there, and whether a run starts at once. */
function FoundThere({ found, start, onStart }: { found: Found; start: boolean; onStart: (start: boolean) => void }) {
  return (
    <div role="status">
      {found.warnings.map((warning) => (
        <p key={warning} className="m-0 flex items-start gap-2 text-warn">
          <Glyph shape="warned" tone="warn" />
          <span>{warning.charAt(0).toUpperCase() + warning.slice(1)}.</span>
        </p>
      ))}
      <p>{found.next}.</p>
      {found.starts && (
        <label className="flag">
          <input type="checkbox" checked={start} onChange={(event) => onStart(event.target.checked)} />
          <span>
            Start a run of {found.mainBranch} at <code>{found.commit?.slice(0, 8)}</code> now
          </span>
        </label>
      )}
    </div>
  );
}
