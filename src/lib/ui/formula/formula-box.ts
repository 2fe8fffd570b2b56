/**
 * The box in which a formula is written: colours, names that go on, what is wrong underlined in its place.
 *
 * It stands in a shadow root, because its style sheets are made by code and a page may take none of those in.
 */
import { acceptCompletion, autocompletion, type Completion, type CompletionContext } from '@codemirror/autocomplete'
import { defaultKeymap, history, historyKeymap } from '@codemirror/commands'
import { setDiagnostics } from '@codemirror/lint'
import { Compartment, EditorState, RangeSetBuilder } from '@codemirror/state'
import {
	Decoration,
	EditorView,
	keymap,
	placeholder,
	ViewPlugin,
	type DecorationSet,
	type ViewUpdate
} from '@codemirror/view'
import { completionsAt } from '$lib/core/formula/syntax/caret.ts'
import { partsOfText } from '$lib/core/formula/syntax/colours.ts'
import { FUNCTION_NOTES } from '$lib/core/formula/functions/table.ts'
import { printName } from '$lib/core/formula/check/rename.ts'
import type { Issue } from '$lib/core/model/formula.ts'

export interface FormulaBox {
	focus(): void
	/** Replaces what stands there, unless it is the same. */
	set(text: string): void
	setNames(names: readonly string[]): void
	setIssues(issues: readonly Issue[]): void
	close(): void
}

export interface FormulaBoxSettings {
	readonly text: string
	readonly names: readonly string[]
	readonly label: string
	readonly empty: string
	readonly onchange: (text: string) => void
	readonly oncaret: (caret: number) => void
}

export function openFormulaBox(host: HTMLElement, settings: FormulaBoxSettings): FormulaBox {
	const root = host.shadowRoot ?? host.attachShadow({ mode: 'open' })
	const names = new Compartment()
	const view = new EditorView({
		parent: root,
		root,
		state: EditorState.create({
			doc: settings.text,
			extensions: [
				history(),
				keymap.of([{ key: 'Tab', run: acceptCompletion }, ...defaultKeymap, ...historyKeymap]),
				EditorView.lineWrapping,
				EditorView.contentAttributes.of({ 'aria-label': settings.label, spellcheck: 'false', autocapitalize: 'off' }),
				placeholder(settings.empty),
				names.of([completing(settings.names), coloursOf(settings.names)]),
				look,
				EditorView.updateListener.of((update) => {
					if (update.docChanged) settings.onchange(update.state.doc.toString())
					if (update.docChanged || update.selectionSet) settings.oncaret(update.state.selection.main.head)
				})
			]
		})
	})
	return {
		focus: () => view.focus(),
		set: (text) => {
			const { doc } = view.state
			if (doc.toString() !== text) view.dispatch({ changes: { from: 0, to: doc.length, insert: text } })
		},
		setNames: (next) => view.dispatch({ effects: names.reconfigure([completing(next), coloursOf(next)]) }),
		setIssues: (issues) => view.dispatch(setDiagnostics(view.state, toDiagnostics(issues, view.state.doc.length))),
		close: () => view.destroy()
	}
}

/** An issue that has no width is shown on the letter before it. */
function toDiagnostics(issues: readonly Issue[], length: number) {
	return issues.flatMap(({ message, span }) => {
		const to = Math.min(length, span.to)
		const from = Math.max(0, Math.min(span.from, to - 1))
		return to > from ? [{ from, to, severity: 'error' as const, message }] : []
	})
}

function completing(names: readonly string[]) {
	const known = new Set(names)
	const all = [...names, ...FUNCTION_NOTES.map((note) => note.name)]
	return autocompletion({
		icons: false,
		override: [
			(context: CompletionContext) => {
				const found = completionsAt(context.state.doc.toString(), context.pos, all)
				const [first] = found
				if (!first) return null
				return { from: first.from, filter: false, options: found.map(({ name }) => optionOf(name, known)) }
			}
		]
	})
}

function optionOf(name: string, known: ReadonlySet<string>): Completion {
	// What a screen holds is read by two words, neither of which is ever quoted.
	if (known.has(name)) return { label: name, apply: name.startsWith('here.') ? name : printName(name) }
	const note = FUNCTION_NOTES.find((each) => each.name === name)
	return { label: name, apply: `${name}(`, ...(note ? { detail: note.signature, info: note.doc } : {}) }
}

const MARKS = Object.fromEntries(
	(['function', 'name', 'text', 'number', 'word', 'sign'] as const).map((kind) => [
		kind,
		Decoration.mark({ class: `part-${kind}` })
	])
)

/** `names`: those of columns, of which some are more than words. */
function coloursOf(names: readonly string[]) {
	return ViewPlugin.fromClass(
		class {
			decorations: DecorationSet

			constructor(view: EditorView) {
				this.decorations = decorate(view, names)
			}

			update(update: ViewUpdate) {
				if (update.docChanged) this.decorations = decorate(update.view, names)
			}
		},
		{ decorations: (plugin) => plugin.decorations }
	)
}

function decorate(view: EditorView, names: readonly string[]): DecorationSet {
	const builder = new RangeSetBuilder<Decoration>()
	for (const { from, to, kind } of partsOfText(view.state.doc.toString(), names)) {
		const mark = MARKS[kind]
		if (mark) builder.add(from, to, mark)
	}
	return builder.finish()
}

/** In the colours of the page, which reach into the shadow root by name. */
const look = EditorView.theme({
	'&': {
		border: '1px solid var(--zinc-5)',
		borderRadius: '3px',
		background: 'var(--paper)',
		color: 'var(--pitch)',
		fontSize: '0.92rem'
	},
	'&.cm-focused': { outline: '3px solid var(--marigold)', outlineOffset: '0' },
	'.cm-content': {
		fontFamily: 'var(--mono)',
		padding: '0.45rem 0.3rem',
		minHeight: '2.6rem',
		caretColor: 'var(--pitch)'
	},
	'.cm-scroller': { fontFamily: 'var(--mono)', lineHeight: '1.5' },
	'.cm-placeholder': { color: 'var(--zinc-7)' },
	'.part-function': { fontWeight: '700' },
	'.part-name': { color: 'var(--sea)' },
	'.part-text': { color: 'var(--bottle)' },
	'.part-number': { color: 'var(--rope)' },
	'.part-word': { fontWeight: '700' },
	'.part-sign': { color: 'var(--zinc-7)' },
	'.cm-tooltip': {
		border: '1px solid var(--pitch)',
		borderRadius: '3px',
		background: 'var(--paper)',
		color: 'var(--pitch)'
	},
	'.cm-tooltip.cm-tooltip-autocomplete > ul': { fontFamily: 'var(--mono)', maxHeight: '14rem' },
	'.cm-tooltip.cm-tooltip-autocomplete > ul > li': { padding: '0.25rem 0.6rem' },
	'.cm-tooltip-autocomplete ul li[aria-selected]': { background: 'var(--marigold-wash)', color: 'var(--pitch)' },
	'.cm-completionDetail': { color: 'var(--zinc-7)', fontStyle: 'normal' },
	'.cm-completionInfo': { padding: '0.4rem 0.6rem', maxWidth: '18rem', font: '0.85rem/1.4 inherit' },
	'.cm-diagnostic-error': { borderLeft: '4px solid var(--oxide)' },
	'.cm-lintRange-error': {
		backgroundImage: 'none',
		textDecoration: 'underline wavy var(--oxide)',
		textUnderlineOffset: '3px'
	}
})
