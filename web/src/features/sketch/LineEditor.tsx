import {
  acceptCompletion,
  autocompletion,
  type CompletionContext,
  closeCompletion,
  moveCompletionSelection,
} from "@codemirror/autocomplete";
import { defaultKeymap, history, historyKeymap } from "@codemirror/commands";
import { type Diagnostic, linter, setDiagnostics } from "@codemirror/lint";
import { Compartment, EditorState, type Extension, RangeSetBuilder } from "@codemirror/state";
import {
  Decoration,
  EditorView,
  GutterMarker,
  gutter,
  highlightActiveLine,
  keymap,
  ViewPlugin,
  type ViewUpdate,
} from "@codemirror/view";
import { useEffect, useImperativeHandle, useRef } from "react";
import type { WordErrorView } from "@/api/client";
import { completions } from "./completion";

/** A line that begins so is a block; the others say something of the sketch, or are remarks. */
const BLOCK = /^\s*(photo|mat|paper|panel|strip|grid|ring|title|journal|journaling|cluster|accent|wash)\b/i;
const FRACTION = /\d+\/\d+/g;
const KIND = /^\s*(?:(?:one|two) pages?|[a-z]+)/i;

/** A block's number at its line: what it is called everywhere else. */
class BlockNumber extends GutterMarker {
  constructor(readonly number: number) {
    super();
  }
  override eq(other: BlockNumber) {
    return other.number === this.number;
  }
  override toDOM() {
    const badge = document.createElement("span");
    badge.className = "line-badge";
    badge.textContent = String(this.number);
    return badge;
  }
}

const blockNumbers = gutter({
  class: "cm-block-numbers",
  markers: (view) => {
    const builder = new RangeSetBuilder<GutterMarker>();
    let number = 0;
    for (let n = 1; n <= view.state.doc.lines; n++) {
      const line = view.state.doc.line(n);
      if (BLOCK.test(line.text)) builder.add(line.from, line.from, new BlockNumber(++number));
    }
    return builder.finish();
  },
});

const kind = Decoration.mark({ class: "font-semibold" });
const fraction = Decoration.mark({ class: "frac" });

/** Kinds stand out, and lines that the caret is not in show fractions as a ruler has them. */
function dressed(view: EditorView) {
  const builder = new RangeSetBuilder<Decoration>();
  const at = view.hasFocus ? view.state.doc.lineAt(view.state.selection.main.head).number : 0;
  for (let n = 1; n <= view.state.doc.lines; n++) {
    const line = view.state.doc.line(n);
    const word = KIND.exec(line.text);
    if (word) builder.add(line.from, line.from + word[0].length, kind);
    if (n === at) continue;
    for (const found of line.text.matchAll(FRACTION)) {
      builder.add(line.from + found.index, line.from + found.index + found[0].length, fraction);
    }
  }
  return builder.finish();
}

const dress = ViewPlugin.fromClass(
  class {
    decorations;
    constructor(view: EditorView) {
      this.decorations = dressed(view);
    }
    update(update: ViewUpdate) {
      if (update.docChanged || update.selectionSet || update.focusChanged) this.decorations = dressed(update.view);
    }
  },
  { decorations: (plugin) => plugin.decorations },
);

/** What is wrong, as places in the text. */
function diagnosticsOf(state: EditorState, errors: readonly WordErrorView[]): Diagnostic[] {
  return errors
    .filter((e) => e.line > 0 && e.line <= state.doc.lines)
    .map((e) => {
      const line = state.doc.line(e.line);
      const letters = [...line.text];
      const from = line.from + letters.slice(0, e.column - 1).join("").length;
      const word = letters.slice(e.column - 1, e.column - 1 + Math.max(1, e.length)).join("");
      const to = Math.min(line.to, from + word.length);
      return { from, to: Math.max(from, to), severity: "error", message: `Found ${e.found}.` };
    });
}

export type EditorHandle = {
  /** Puts a word where the caret is. */
  insert: (word: string) => void;
  /** Marks a word. */
  select: (error: WordErrorView) => void;
};

type Props = {
  text: string;
  errors: readonly WordErrorView[];
  /** Words that may stand at the first error. */
  allowed: readonly string[];
  mayChange: boolean;
  onType: (text: string) => void;
  ref?: React.Ref<EditorHandle>;
};

const editable = new Compartment();
const keys = keymap.of([
  { key: "Tab", run: acceptCompletion },
  { key: "ArrowDown", run: moveCompletionSelection(true) },
  { key: "ArrowUp", run: moveCompletionSelection(false) },
  { key: "Escape", run: closeCompletion },
  ...defaultKeymap,
  ...historyKeymap,
]);
const mayWrite = (may: boolean): Extension => [EditorState.readOnly.of(!may), EditorView.editable.of(may)];

/** The sketch's lines: numbers in the gutter, errors at their word, and what a word may become at the caret (Tab takes it). */
export function LineEditor({ text, errors, allowed, mayChange, onType, ref }: Props) {
  const place = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView>(undefined);
  const latest = useRef({ allowed, onType });
  latest.current = { allowed, onType };

  // biome-ignore lint/correctness/useExhaustiveDependencies: made once; what changes is sent to it below
  useEffect(() => {
    if (!place.current) return;
    const complete = (context: CompletionContext) => {
      const found = completions(context.state.doc.toString(), context.pos, latest.current.allowed);
      const word = context.matchBefore(/[a-z-]+/i);
      if (!word || found.length === 0) return null;
      return { from: word.from, options: found.map((label) => ({ label, apply: `${label} ` })), filter: false };
    };
    const made = new EditorView({
      parent: place.current,
      state: EditorState.create({
        doc: text,
        extensions: [
          history(),
          blockNumbers,
          dress,
          highlightActiveLine(),
          EditorView.lineWrapping,
          autocompletion({ override: [complete], defaultKeymap: false, icons: false }),
          linter(null),
          keys,
          editable.of(mayWrite(mayChange)),
          EditorView.contentAttributes.of({
            "aria-label": "The sketch, a line a block",
            "aria-describedby": "line-errors",
            spellcheck: "false",
          }),
          EditorView.updateListener.of((update) => {
            if (update.docChanged && !update.transactions.some((t) => t.isUserEvent("from-outside"))) {
              latest.current.onType(update.state.doc.toString());
            }
          }),
        ],
      }),
    });
    view.current = made;
    return () => made.destroy();
  }, []);

  // What is changed elsewhere is written down here.
  useEffect(() => {
    const at = view.current;
    if (!at || at.state.doc.toString() === text) return;
    const head = Math.min(at.state.selection.main.head, text.length);
    at.dispatch({
      changes: { from: 0, to: at.state.doc.length, insert: text },
      selection: { anchor: head },
      userEvent: "from-outside",
    });
  }, [text]);
  useEffect(() => {
    const at = view.current;
    if (at) at.dispatch(setDiagnostics(at.state, diagnosticsOf(at.state, errors)));
  }, [errors]);
  useEffect(() => {
    view.current?.dispatch({ effects: editable.reconfigure(mayWrite(mayChange)) });
  }, [mayChange]);

  useImperativeHandle(ref, () => ({
    insert: (word) => {
      const at = view.current;
      if (!at) return;
      const { from, to } = at.state.selection.main;
      const before = at.state.sliceDoc(Math.max(0, from - 1), from);
      const insert = `${before === "" || /\s/.test(before) ? "" : " "}${word} `;
      at.dispatch({ changes: { from, to, insert }, selection: { anchor: from + insert.length } });
      at.focus();
    },
    select: (error) => {
      const at = view.current;
      const found = at && diagnosticsOf(at.state, [error])[0];
      if (!at || !found) return;
      at.dispatch({ selection: { anchor: found.from, head: found.to }, scrollIntoView: true });
      at.focus();
    },
  }));

  return <div ref={place} className="field !p-0" />;
}
