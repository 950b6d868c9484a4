import { acceptCompletion, autocompletion, completionKeymap } from "@codemirror/autocomplete";
import { defaultKeymap, history, historyKeymap, indentWithTab } from "@codemirror/commands";
import { yaml } from "@codemirror/lang-yaml";
import { HighlightStyle, indentUnit, syntaxHighlighting } from "@codemirror/language";
import { lintGutter, lintKeymap, setDiagnostics, type Diagnostic } from "@codemirror/lint";
import { unifiedMergeView } from "@codemirror/merge";
import { Compartment, EditorState } from "@codemirror/state";
import { EditorView, highlightActiveLine, keymap, lineNumbers, type Command } from "@codemirror/view";
import { tags } from "@lezer/highlight";
import { useEffect, useRef } from "react";
import type { Schemas } from "../api/client";
import { complete, type Known, type Schema } from "./completion";

interface Props {
  /** What the text is, for who does not see it. */
  label?: string;
  text: string;
  /** The line that is seen at first, from 1. */
  line?: number;
  /** A line that is shown now; another object shows it again. */
  looking?: { line: number } | undefined;
  /** What the text is held against; undefined: it is not. */
  against: string | undefined;
  problems: Schemas["Problem"][];
  warnings: Schemas["Problem"][];
  schema: Schema | undefined;
  known: Known;
  onChange: (text: string) => void;
}

const colours = HighlightStyle.define([
  { tag: tags.propertyName, color: "var(--ink)", fontWeight: "620" },
  { tag: [tags.string, tags.content], color: "var(--good)" },
  { tag: tags.comment, color: "var(--ink-3)", fontStyle: "italic" },
  { tag: [tags.number, tags.bool, tags.keyword], color: "var(--ice)" },
  { tag: tags.punctuation, color: "var(--ink-2)" },
]);

const theme = EditorView.theme({
  "&": { height: "100%", fontSize: "13px", backgroundColor: "var(--log)", color: "var(--ink)" },
  ".cm-scroller": { fontFamily: "var(--font-mono)", lineHeight: "20px", fontVariantLigatures: "none" },
  ".cm-gutters": { backgroundColor: "var(--log)", color: "var(--ink-3)", borderRight: "1px solid var(--line)" },
  ".cm-activeLine, .cm-activeLineGutter": { backgroundColor: "color-mix(in srgb, var(--slab) 45%, transparent)" },
  "&.cm-focused": { outline: "2px solid var(--ink)", outlineOffset: "-2px" },
  ".cm-cursor": { borderLeftColor: "var(--ink)" },
  ".cm-tooltip": {
    backgroundColor: "var(--raised)",
    color: "var(--ink)",
    border: "1px solid var(--line-strong)",
    borderRadius: "4px",
    fontFamily: "var(--font-ui)",
  },
  ".cm-tooltip-autocomplete ul li[aria-selected]": { backgroundColor: "var(--primary)", color: "var(--on-primary)" },
  ".cm-diagnostic": { padding: "4px 8px", borderLeftWidth: "4px" },
  ".cm-lintRange-error": {
    backgroundImage: "none",
    textDecoration: "underline wavy var(--bad) 1.5px",
    textUnderlineOffset: "3px",
  },
  ".cm-lintRange-warning": {
    backgroundImage: "none",
    textDecoration: "underline wavy var(--warn) 1.5px",
    textUnderlineOffset: "3px",
  },
  ".cm-selectionBackground, &.cm-focused .cm-selectionBackground": {
    backgroundColor: "color-mix(in srgb, var(--mark) 60%, transparent) !important",
  },
  ".cm-deletedChunk": { backgroundColor: "var(--bad-soft)" },
  ".cm-changedLine": { backgroundColor: "var(--good-soft) !important" },
});

/** A new line after a key without a value stands under that key. */
const under: Command = ({ state, dispatch }) => {
  const { head, empty } = state.selection.main;
  const line = state.doc.lineAt(head);
  if (!empty || head !== line.to || !/:\s*$/.test(line.text)) return false;
  const indent = (/^\s*(?:- )?/.exec(line.text)?.[0].length ?? 0) + 2;
  dispatch(
    state.update(state.replaceSelection(`\n${" ".repeat(indent)}`), { scrollIntoView: true, userEvent: "input" }),
  );
  return true;
};

function diagnostics(
  state: EditorState,
  problems: Schemas["Problem"][],
  severity: Diagnostic["severity"],
): Diagnostic[] {
  return problems.map((problem) => {
    const line = state.doc.line(Math.min(Math.max(1, problem.line), state.doc.lines));
    const from = Math.min(line.to, line.from + problem.column - 1);
    const length = /^[\w./*{}"'-]+/.exec(state.doc.sliceString(from, line.to))?.[0].length ?? 1;
    return {
      from,
      to: Math.min(line.to, from + Math.max(1, length)),
      severity,
      message: problem.path ? `${problem.path}: ${problem.message}` : problem.message,
    };
  });
}

/** The one place in which two texts differ, so that the cursor and what is seen stay where they are. */
function difference(before: string, after: string) {
  let from = 0;
  while (from < before.length && from < after.length && before[from] === after[from]) from++;
  let end = 0;
  const most = Math.min(before.length, after.length) - from;
  while (end < most && before[before.length - 1 - end] === after[after.length - 1 - end]) end++;
  return { from, to: before.length - end, insert: after.slice(from, after.length - end) };
}

/** A file's text: marked where something is wrong, completed from the schema and from what exists. */
export function Editor({
  label = "Pipeline file",
  text,
  line = 1,
  looking,
  against,
  problems,
  warnings,
  schema,
  known,
  onChange,
}: Props) {
  const place = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView>(null);
  const compare = useRef(new Compartment());
  const completing = useRef(new Compartment());
  const changed = useRef(onChange);
  useEffect(() => {
    changed.current = onChange;
  }, [onChange]);

  useEffect(() => {
    if (!place.current) return;
    const editor = new EditorView({
      parent: place.current,
      state: EditorState.create({
        doc: text,
        extensions: [
          lineNumbers(),
          history(),
          highlightActiveLine(),
          lintGutter(),
          indentUnit.of("  "),
          EditorState.tabSize.of(2),
          yaml(),
          syntaxHighlighting(colours),
          theme,
          keymap.of([
            { key: "Tab", run: acceptCompletion },
            ...completionKeymap,
            { key: "Enter", run: under },
            ...lintKeymap,
            ...defaultKeymap,
            ...historyKeymap,
            indentWithTab,
          ]),
          EditorView.contentAttributes.of({ "aria-label": label, tabindex: "0" }),
          EditorView.updateListener.of((update) => {
            if (update.docChanged) changed.current(update.state.doc.toString());
          }),
          compare.current.of([]),
          completing.current.of([]),
        ],
      }),
    });
    view.current = editor;
    if (line > 1) {
      const at = editor.state.doc.line(Math.min(line, editor.state.doc.lines)).from;
      editor.dispatch({ selection: { anchor: at }, effects: EditorView.scrollIntoView(at, { y: "start" }) });
    }
    return () => editor.destroy();
    // The text is the editor's own from here on; another text is set below.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);

  useEffect(() => {
    const editor = view.current;
    if (editor && editor.state.doc.toString() !== text)
      editor.dispatch({ changes: difference(editor.state.doc.toString(), text) });
  }, [text]);
  useEffect(() => {
    const editor = view.current;
    if (!editor || !looking) return;
    const at = editor.state.doc.line(Math.min(looking.line, editor.state.doc.lines)).from;
    editor.dispatch({ selection: { anchor: at }, effects: EditorView.scrollIntoView(at, { y: "center" }) });
  }, [looking]);
  useEffect(() => {
    const editor = view.current;
    if (editor)
      editor.dispatch(
        setDiagnostics(editor.state, [
          ...diagnostics(editor.state, problems, "error"),
          ...diagnostics(editor.state, warnings, "warning"),
        ]),
      );
  }, [problems, warnings]);
  useEffect(() => {
    view.current?.dispatch({
      effects: compare.current.reconfigure(
        against === undefined ? [] : unifiedMergeView({ original: against, mergeControls: false }),
      ),
    });
  }, [against]);
  useEffect(() => {
    view.current?.dispatch({
      effects: completing.current.reconfigure(
        autocompletion({ override: [complete(schema, known)], activateOnTyping: true }),
      ),
    });
  }, [schema, known]);
  return <div ref={place} className="flex-1 min-h-0 [&_.cm-editor]:h-full" />;
}
