import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Tabs } from "radix-ui";
import { useDeferredValue, useState } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import { useMay } from "../../api/may";
import { api, need, type Schemas } from "../../api/client";
import { environmentCopy, environmentsFile, environmentsSchema } from "../../api/environments";
import { Loading, Trouble } from "../../design/parts";
import { SIDE_TAB } from "../../design/tabs";
import { NOTHING_KNOWN, type Schema } from "../../editor/completion";
import { Editor } from "../../editor/Editor";
import { EnvironmentForms } from "./EnvironmentForms";
import { PastTried } from "./PastTried";
import { COMMIT, DESK, DESK_BAR, DESK_SIDE, DESK_TEXT, BRING_IN } from "../../design/classes";
import { firstDifference, Checked } from "./Checked";

/** The environments file: written here, checked as it is typed, loaded as a whole or not at all. */
export default function EnvironmentsFile() {
  const [asked] = useSearchParams();
  const copied = asked.get("copy");
  const as = asked.get("as");
  if (copied && !as) return <NameOfCopy of={copied} />;
  return copied && as ? <Copy of={copied} as={as} /> : <Whole environment={asked.get("environment") ?? undefined} />;
}

function Whole({ environment }: { environment: string | undefined }) {
  const file = useQuery(environmentsFile());
  if (file.isPending) return <Loading height={560} />;
  if (file.isLoadingError) return <Trouble whole error={file.error} />;
  return (
    <Desk
      key={file.data.digest}
      title="Environments"
      about="All environments and their rules, as they are in force."
      file={file.data}
      before={file.data.text}
      environment={environment}
      back={environment ? `/environments/${environment}` : "/"}
    />
  );
}

function Copy({ of, as }: { of: string; as: string }) {
  const file = useQuery(environmentCopy(of, as));
  if (file.isPending) return <Loading height={560} />;
  if (file.isLoadingError) return <Trouble whole error={file.error} />;
  return (
    <Desk
      title={as}
      about={`A copy of ${of}: give it hosts and addresses of its own, then load it. The others stay as they are.`}
      file={file.data}
      before=""
      back={`/environments/${of}`}
    />
  );
}

function NameOfCopy({ of }: { of: string }) {
  const go = useNavigate();
  const [name, setName] = useState("");
  return (
    <>
      <title>{`Copy of ${of} · Paseo`}</title>
      <div className="title-line">
        <h1>Copy {of}</h1>
      </div>
      <section className={`sheet bring-in ${BRING_IN}`}>
        <form
          onSubmit={(event) => {
            event.preventDefault();
            void go(`/environments-file?copy=${of}&as=${encodeURIComponent(name)}`);
          }}
        >
          <label>
            Name of the copy
            <input
              value={name}
              onChange={(event) => setName(event.target.value)}
              required
              pattern="[a-z][a-z0-9-]{0,62}"
              title="small letters, digits and dashes, beginning with a letter"
              placeholder="showroom"
            />
          </label>
          <p className="quiet">Nothing is made yet: you see the file first.</p>
          <button type="submit" className="btn primary">
            Show the copy
          </button>
        </form>
      </section>
    </>
  );
}

interface Writing {
  title: string;
  about: string;
  file: Schemas["TextView"];
  /** What the text is held against. */
  before: string;
  /** A text that was made of it, to be looked over. */
  draft?: string;
  /** The one that is seen at first. */
  environment?: string;
  back: string;
  /** What the page that follows is given. */
  state?: unknown;
}

export function Desk({ title, about, file, before, draft, environment, back, state }: Writing) {
  const client = useQueryClient();
  const go = useNavigate();
  const [text, setText] = useState(draft ?? file.text);
  const [compared, compare] = useState(draft !== undefined);
  const edits = useMay()("EDIT_ENVIRONMENT");
  const [refused, setRefused] = useState("");
  const [meant, setMeant] = useState(false);
  const [looking, setLooking] = useState<{ line: number }>();
  const schema = useQuery(environmentsSchema());
  const shown = useDeferredValue(text);
  const check = useQuery({
    queryKey: ["environments-check", file.digest, shown],
    staleTime: 0,
    gcTime: 60_000,
    placeholderData: (earlier) => earlier,
    queryFn: () => need(api.POST("/api/v1/environments/check", { body: { text: shown } })),
  });
  const problems = check.data?.problems ?? [];
  const warnings = check.data?.warnings ?? [];
  const changes = check.data?.changes ?? [];
  const loosens = check.data?.loosens ?? [];
  const ready =
    (loosens.length === 0 || meant) &&
    shown === text &&
    !check.isFetching &&
    check.data !== undefined &&
    problems.length === 0 &&
    changes.length > 0;
  const load = async () => {
    setRefused("");
    try {
      await need(
        api.PUT("/api/v1/environments", { body: { text, base: file.digest, loosen: meant && loosens.length > 0 } }),
      );
      await client.invalidateQueries();
      await go(back, { state });
    } catch (error) {
      setRefused(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <>
      <title>{`${title} · Paseo`}</title>
      <div className="title-line">
        <h1>{title}</h1>
        <p>{about}</p>
      </div>
      <div className={DESK}>
        <section className={`${DESK_TEXT} sheet sticky top-4`}>
          <div className={DESK_BAR}>
            <b>environments.yaml</b>
            <span className="quiet">{text === file.text ? "as it is" : "changed here"}</span>
            <span className="grow" />
            <button type="button" className="btn small" aria-pressed={compared} onClick={() => compare(!compared)}>
              Difference
            </button>
            {text !== file.text && (
              <button type="button" className="btn small quiet-btn" onClick={() => setText(file.text)}>
                Put back
              </button>
            )}
          </div>
          <Editor
            label="Environments file"
            text={text}
            line={environment ? file.text.split("\n").indexOf(`  ${environment}:`) + 1 : firstDifference(before, text)}
            looking={looking}
            against={compared ? before : undefined}
            problems={problems}
            warnings={warnings}
            schema={schema.data as Schema | undefined}
            known={NOTHING_KNOWN}
            onChange={(now) => {
              setText(now);
              setMeant(false);
            }}
          />
        </section>
        <aside className={DESK_SIDE}>
          <Tabs.Root defaultValue="changes" className="min-w-0">
            <Tabs.List aria-label="Beside the text" className="mb-3 flex gap-4">
              <Tabs.Trigger value="changes" className={SIDE_TAB}>
                Check
              </Tabs.Trigger>
              <Tabs.Trigger value="forms" className={SIDE_TAB}>
                Forms
              </Tabs.Trigger>
            </Tabs.List>
            <Tabs.Content value="changes" className="grid gap-4">
              <Checked check={check.data} error={check.error ?? undefined} />
              {problems.length === 0 && changes.length > 0 && <PastTried text={text} />}
            </Tabs.Content>
            <Tabs.Content value="forms" className="grid grid-cols-[minmax(0,1fr)] gap-4">
              {schema.data ? (
                <EnvironmentForms
                  text={text}
                  schema={schema.data as Schema}
                  said={check.data?.said ?? []}
                  environment={environment}
                  onChange={(now) => {
                    setText(now);
                    setMeant(false);
                  }}
                  onLook={(line) => setLooking({ line })}
                />
              ) : (
                <Loading height={200} />
              )}
              <Checked check={check.data} error={check.error ?? undefined} />
            </Tabs.Content>
          </Tabs.Root>
          <form
            className={COMMIT}
            onSubmit={(event) => {
              event.preventDefault();
              void load();
            }}
          >
            {loosens.length > 0 && (
              <label className="flag">
                <input type="checkbox" checked={meant} onChange={(event) => setMeant(event.target.checked)} />
                These are meant: {loosens.length === 1 ? "the loosened rule" : `${loosens.length} loosened rules`}
              </label>
            )}
            {edits && (
              <button type="submit" className="btn primary" disabled={!ready}>
                Load it
              </button>
            )}
            <Link className="btn quiet-btn" to={back} state={state}>
              Cancel
            </Link>
            <p role="status" className={refused ? "bad" : "quiet"}>
              {refused ||
                (!edits && "You may check it here; whoever may change environments loads it.") ||
                "All of it is loaded, or, where something is wrong, nothing. " +
                  "It is kept in the audit trail, and in the rules as they were."}
            </p>
          </form>
        </aside>
      </div>
    </>
  );
}
