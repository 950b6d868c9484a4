import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Tabs } from "radix-ui";
import { useCallback, useDeferredValue, useEffect, useRef, useState } from "react";
import { Link, useLocation, useParams, useSearchParams } from "react-router";
import { useMay } from "../../api/may";
import { api, need, type Schemas } from "../../api/client";
import { component as componentQuery, namesAtHand, pipeline, pipelineSchema } from "../../api/components";
import { Loading, Trouble } from "../../design/parts";
import { SIDE_TAB } from "../../design/tabs";
import { CommitForm } from "./CommitForm";
import { Editor } from "../../editor/Editor";
import { Forms } from "./forms/Forms";
import { Plan } from "./Plan";
import { TriggersTried } from "./TriggersTried";
import { NOTHING_KNOWN, type Schema } from "../../editor/completion";
import { COMMIT, DESK, DESK_BAR, DESK_SIDE, DESK_TEXT } from "../../design/classes";
import { Used, Problems, Earlier } from "./Problems";

/** A component's pipeline file: written here, checked as it is typed, committed to a branch. */
export default function Pipeline() {
  const { name = "" } = useParams();
  const [params, setParams] = useSearchParams();
  const branch = params.get("branch") ?? undefined;
  const about = useQuery(componentQuery(name));
  const file = useQuery(pipeline(name, branch));
  if (file.isPending || about.isPending) return <Loading height={560} />;
  if (about.isLoadingError) return <Trouble whole error={about.error} />;
  return (
    <>
      <title>{`Pipeline of ${name} · Paseo`}</title>
      <div className="title-line">
        <h1>
          <Link className="text-ink-2 font-medium" to={`/components/${name}`}>
            {name}
          </Link>{" "}
          pipeline
        </h1>
        <p>
          <code>{about.data.file}</code> of
        </p>
        <select
          aria-label="Branch"
          value={branch ?? about.data.mainBranch}
          onChange={(event) => setParams({ branch: event.target.value })}
        >
          {Object.keys(about.data.heads).map((head) => (
            <option key={head}>{head}</option>
          ))}
        </select>
      </div>
      {file.isError ? (
        <Trouble error={file.error} />
      ) : (
        <Desk key={`${file.data.branch} ${file.data.commit}`} name={name} file={file.data} />
      )}
    </>
  );
}

function useChecked(name: string, branch: string, text: string) {
  const shown = useDeferredValue(text);
  const path = { name };
  const check = useQuery({
    queryKey: ["pipeline-check", name, shown],
    staleTime: Infinity,
    gcTime: 60_000,
    placeholderData: (before) => before,
    queryFn: () =>
      need(api.POST("/api/v1/components/{name}/pipeline/check", { params: { path }, body: { text: shown } })),
  });
  const effect = useQuery({
    queryKey: ["pipeline-effect", name, branch, shown],
    staleTime: Infinity,
    gcTime: 60_000,
    placeholderData: (before) => before,
    queryFn: () =>
      need(api.POST("/api/v1/components/{name}/pipeline/effect", { params: { path }, body: { branch, text: shown } })),
  });
  return {
    check: check.data,
    error: check.error ?? undefined,
    effect: effect.data?.sentence ?? "",
    current: shown === text && !check.isFetching,
  };
}

function Desk({ name, file }: { name: string; file: Schemas["PipelineView"] }) {
  const drafted = (useLocation().state as { text?: string } | null)?.text;
  const client = useQueryClient();
  const [text, setText] = useState(file.text === "" && drafted ? drafted : file.text);
  // Forms follow the text a moment later, so that no key waits for them.
  const read = useDeferredValue(text);
  const latest = useRef(text);
  useEffect(() => {
    latest.current = text;
  }, [text]);
  const newest = useCallback(() => latest.current, []);
  const [against, setAgainst] = useState<string>();
  const [whole, setWhole] = useState(false);
  const [looking, setLooking] = useState<{ line: number }>();
  const look = useCallback((line: number) => setLooking({ line }), []);
  const may = useMay();
  const schema = useQuery(pipelineSchema());
  const known = useQuery(namesAtHand(name)).data ?? NOTHING_KNOWN;
  const { check, error, effect, current } = useChecked(name, file.branch, text);
  const problems = check?.problems ?? [];
  const warnings = check?.warnings ?? [];
  const changed = text !== file.text;
  const committed = async () => {
    await client.invalidateQueries({ queryKey: ["pipeline-history", name] });
    await client.invalidateQueries({ queryKey: ["component", name] });
    if (file.text !== "") await client.invalidateQueries({ queryKey: ["pipeline", name] });
  };
  return (
    <div className={DESK}>
      <section className={`${DESK_TEXT} sheet sticky top-4`}>
        <div className={DESK_BAR}>
          <b>{file.path}</b>
          <span className="quiet">
            at <code>{file.commit.slice(0, 8)}</code>
            {changed ? ", changed here" : ", as it is in force"}
          </span>
          <span className="grow" />
          <button
            type="button"
            className="btn small"
            aria-pressed={against !== undefined}
            onClick={() => setAgainst(against === undefined ? file.text : undefined)}
          >
            Difference
          </button>
          {check?.expanded && (
            <button
              type="button"
              className="btn small"
              aria-pressed={whole}
              title="The file as it is in force, with every piece in its place"
              onClick={() => setWhole(!whole)}
            >
              With its pieces
            </button>
          )}
          <Earlier name={name} onShow={setAgainst} />
          {changed && (
            <button type="button" className="btn small quiet-btn" onClick={() => setText(file.text)}>
              Put back
            </button>
          )}
        </div>
        {whole && check?.expanded && <Whole text={check.expanded} />}
        <Editor
          text={text}
          looking={looking}
          against={against}
          problems={problems}
          warnings={warnings}
          schema={schema.data as Schema | undefined}
          known={known}
          onChange={setText}
        />
      </section>
      <aside className={DESK_SIDE}>
        <Problems problems={problems} warnings={warnings} checked={check !== undefined} error={error} />
        <Tabs.Root defaultValue="effect" className="min-w-0">
          <Tabs.List aria-label="Beside the text" className="mb-3 flex gap-4">
            <Tabs.Trigger value="effect" className={SIDE_TAB}>
              What it does
            </Tabs.Trigger>
            <Tabs.Trigger value="forms" className={SIDE_TAB}>
              Forms
            </Tabs.Trigger>
          </Tabs.List>
          <Tabs.Content value="effect" className="grid gap-5">
            {check && check.pieces.length > 0 && <Used pieces={check.pieces} />}
            {check?.plan && <Plan plan={check.plan} effect={effect} />}
            {check?.plan && <TriggersTried name={name} text={text} />}
          </Tabs.Content>
          <Tabs.Content value="forms">
            {schema.data ? (
              <Forms
                component={name}
                text={read}
                newest={newest}
                schema={schema.data as Schema}
                known={known}
                onChange={setText}
                onLook={look}
              />
            ) : (
              <Loading height={200} />
            )}
          </Tabs.Content>
        </Tabs.Root>
        {may("EDIT_PIPELINE", { component: name }) ? (
          <CommitForm
            component={name}
            file={file}
            text={text}
            ready={changed && current && check !== undefined && problems.length === 0}
            onCommitted={() => void committed()}
          />
        ) : (
          <p className={`${COMMIT} quiet`}>You may try it here; whoever may commit pipeline files commits it.</p>
        )}
      </aside>
    </div>
  );
}

const WHOLE =
  "m-0 max-h-[50vh] flex-none overflow-auto border-b border-line-strong bg-log p-3 " +
  "font-mono text-[13px] leading-[20px]";

/** What is in force, which nobody writes: it is read above the text that it comes from, from the first piece on. */
function Whole({ text }: { text: string }) {
  const place = useRef<HTMLPreElement>(null);
  useEffect(() => {
    const piece = place.current?.querySelector<HTMLElement>("[data-piece]");
    if (place.current && piece) place.current.scrollTop = piece.offsetTop - place.current.offsetTop - 40;
  }, []);
  return (
    <pre ref={place} tabIndex={0} aria-label="The file with its pieces" className={WHOLE}>
      {text.split("\n").map((line, at) =>
        /^\s*# from /.test(line) ? (
          <span key={at} data-piece className="block text-ice italic">
            {line}
          </span>
        ) : (
          <span key={at} className="block">
            {line || " "}
          </span>
        ),
      )}
    </pre>
  );
}
