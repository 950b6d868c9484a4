import { useState } from "react";
import { useNavigate } from "react-router";
import { api, need, type Schemas } from "../../api/client";
import { Field, Refused, useTrying } from "../../design/form";
import { Glyph } from "../../design/Glyph";

type Draft = Schemas["DraftView"];
type Found = Schemas["RegistrationView"];

/**
 * Brings a component in: looks at its repository, drafts a pipeline file, registers it. What is typed stays where it
 * is refused.
 */
export default function BringIn() {
  const navigate = useNavigate();
  const [name, setName] = useState("");
  const [repository, setRepository] = useState("");
  const [trusted, setTrusted] = useState("main");
  const [draft, setDraft] = useState<Draft>();
  const [found, setFound] = useState<Found>();
  const [start, setStart] = useState(true);
  const { trying, refused } = useTrying();
  const wanted = (branch?: string) => ({
    name,
    repository,
    mainBranch: branch,
    trusted: trusted.split(/[\s,]+/).filter(Boolean),
    allowed: [],
    secrets: [],
  });
  const look = () =>
    trying(async () => {
      const drafted = await need(api.POST("/api/v1/drafts", { body: { component: name, repository } }));
      setFound(
        drafted.free ? undefined : await need(api.POST("/api/v1/registrations", { body: wanted(drafted.branch) })),
      );
      setDraft(drafted);
    });
  const register = () =>
    trying(async () => {
      await need(api.POST("/api/v1/components", { body: wanted(draft?.branch) }));
      if (found?.starts && start) {
        const run = await need(api.POST("/api/v1/runs", { body: { component: name } }));
        await navigate(`/runs/${name}/${run.number}`);
      } else {
        await navigate(`/components/${name}/pipeline`, { state: { text: draft?.text } });
      }
    });
  return (
    <>
      <title>Bring in a component · Paseo</title>
      <div className="title-line">
        <h1>Bring in a component</h1>
        <p>Name its repository: Paseo looks at what is in it and drafts a first pipeline file.</p>
      </div>
      <div className="run-columns">
        <section className="sheet bring-in">
          <form
            onSubmit={(event) => {
              event.preventDefault();
              void (draft && !draft.free ? register() : look());
            }}
          >
            <Field label="Name" at="/name" refused={refused}>
              <input
                id="name"
                value={name}
                onChange={(event) => {
                  setName(event.target.value);
                  setDraft(undefined);
                }}
                required
                pattern="[a-z0-9][a-z0-9\-]{0,62}"
                placeholder="sun-board"
                title="Small letters, digits and dashes, at most 63"
              />
            </Field>
            <Field label="Repository" at="/repository" refused={refused}>
              <input
                id="repository"
                value={repository}
                onChange={(event) => {
                  setRepository(event.target.value);
                  setDraft(undefined);
                }}
                required
                placeholder="file:///srv/git/sun-board.git"
              />
            </Field>
            <Field label="Trusted branches" at="/trusted" refused={refused}>
              <input
                value={trusted}
                onChange={(event) => {
                  setTrusted(event.target.value);
                  setDraft(undefined);
                }}
              />
            </Field>
            {draft?.free && (
              <p className="bad" role="alert">
                There is a component named {name} already.{" "}
                <button
                  type="button"
                  className="btn small"
                  onClick={() => {
                    setName(draft.free ?? name);
                    setDraft(undefined);
                  }}
                >
                  Take {draft.free}
                </button>
              </p>
            )}
            {draft && found && (
              <div role="status">
                {found.warnings.map((warning) => (
                  <p key={warning} className="warn">
                    <Glyph shape="warned" tone="warn" /> {warning}
                  </p>
                ))}
                <p>{found.next}.</p>
                {found.starts && (
                  <label className="flag">
                    <input type="checkbox" checked={start} onChange={(event) => setStart(event.target.checked)} />
                    <span>
                      Start a run of {found.mainBranch} at <code>{found.commit?.slice(0, 8)}</code> now
                    </span>
                  </label>
                )}
              </div>
            )}
            <Refused refused={refused} beside={["/name", "/repository", "/trusted"]} />
            <button type="submit" className="btn primary">
              {draft && !draft.free ? `Register ${name}${found?.warnings.length ? " anyway" : ""}` : "Look at it"}
            </button>
          </form>
        </section>
        <aside className="run-side">
          <h2>{draft ? (draft.there ? "It has a paseo.yaml already" : "A first draft") : "What follows"}</h2>
          {draft ? (
            <pre className="draft" tabIndex={0}>
              {draft.text}
            </pre>
          ) : (
            <p className="quiet">
              A Maven build, an npm package, a Makefile, a Go module, Python, a container file or plain scripts are
              recognised. You correct the draft, with completion and exact errors, and commit it; then it is in force.
            </p>
          )}
        </aside>
      </div>
    </>
  );
}
