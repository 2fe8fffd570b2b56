/**
 * Words in Markdown, with values in them, as the HTML that a page puts in. HTML in the words is shown as it stands, pictures and
 * links to scripts are words, and a value is only ever text: what it holds becomes no link, no heading and no picture.
 */
import type { TextLine } from '$lib/core/app/lines/text.ts'
import { check } from '$lib/core/formula/check/check.ts'
import { someNode } from '$lib/core/formula/syntax/walk.ts'
import { fold } from '$lib/core/formula/evaluate/fold.ts'
import { compileError, compileValue } from '$lib/core/formula/sql/compile.ts'
import { newContext } from '$lib/core/formula/sql/sql-context.ts'
import { raw, sql } from '$lib/core/sql/sql.ts'
import { PIECE } from '$lib/core/text/pieces.ts'
import MarkdownIt from 'markdown-it'
import { momentShown } from '../../rights/shown-me.ts'
import type { ShownAs, View } from './view.ts'

export const text: ShownAs<TextLine> = {
	holdsSomething: () => false,
	show: ({ id, text: words }, view) => [{ id, kind: 'text', html: toHtml(words, (formula) => workOut(formula, view)) }]
}

const markdown = new MarkdownIt('default', { html: false, linkify: false }).disable('image')

/** A sign of the private use area before and after the number of a value: no text has it, Markdown means nothing by it. */
const [BEFORE, AFTER] = ['\uE000', '\uE001']
const PLACE = /\uE000(\d+)\uE001/g

/** `valueOf`: what a formula comes to, as text. */
export function toHtml(words: string, valueOf: (formula: string) => string): string {
	const values: string[] = []
	const placed = words.replaceAll(/[\uE000\uE001]/g, '').replace(PIECE, (_all, formula: string | undefined) => {
		if (formula === undefined) return '{'
		values.push(valueOf(formula))
		return `${BEFORE}${values.length - 1}${AFTER}`
	})
	return markdown.render(placed).replace(PLACE, (_all, i: string) => markdown.utils.escapeHtml(values[Number(i)] ?? ''))
}

// An address with a value in it would be made by whoever wrote the value.
markdown.validateLink = (
	(isSound) => (address: string) =>
		!decodeURIComponent(address).includes(BEFORE) && isSound(address)
)(markdown.validateLink.bind(markdown))

markdown.renderer.rules['link_open'] = (tokens, i, options, _env, renderer) => {
	tokens[i]?.attrSet('target', '_blank')
	tokens[i]?.attrSet('rel', 'noopener noreferrer')
	return renderer.renderToken(tokens, i, options)
}

/**
 * A formula over no row, as this person sees the data: of their own row, too, only cells that they see, that a steward opened, or
 * what they are called. Blank where it is an error or cannot be read any more.
 */
function workOut(formula: string, { store, standing, here }: View): string {
	const { catalogue } = store.workspace()
	const { expr } = check(`TEXTJOIN(""; TRUE; ${formula})`, { catalogue, rows: [], me: true, here })
	if (!expr) return ''
	const { rights } = standing
	const moment = momentShown(store, standing)
	const folded = fold(expr, moment)
	// What folding leaves of one's own row is worked out on the data as it is.
	if (someNode(folded, ({ kind }) => kind === 'me')) return ''
	const ctx = () => newContext('r', moment, rights)
	const [row] = store.select(sql`SELECT ${compileValue(folded, ctx())}, ${compileError(folded, ctx()) ?? raw('NULL')}`)
	return row?.[1] === null && typeof row[0] === 'string' ? row[0] : ''
}
