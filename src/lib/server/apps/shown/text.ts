/**
 * Words in Markdown, with values in them, as the HTML that a page puts in. HTML in the words is shown as it stands, pictures and
 * links to scripts are words, and a value is only ever text: what it holds becomes no link, no heading and no picture.
 */
import type { TextLine } from '$lib/core/app/lines/text.ts'
import { PIECE } from '$lib/core/text/pieces.ts'
import { showWorked } from '$lib/core/table/show-worked.ts'
import MarkdownIt from 'markdown-it'
import { workOutAlone } from '../work-out-alone.ts'
import type { ShownAs, View } from './view.ts'

export const text: ShownAs<TextLine> = {
	holdsSomething: () => false,
	show: ({ id, text: words }, view) => [{ id, kind: 'text', html: toHtml(words, (formula) => asText(formula, view)) }]
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

/** What a formula over no row comes to, as text: blank where it is an error. */
export function asText(formula: string, { store, standing, here }: View): string {
	const own = workOutAlone(store, formula, { standing, here })
	if (own.value === null) return ''
	if (own.type.kind !== 'row') return showWorked({ ...own, value: own.value }, store.workspace())
	// A row is read as its label.
	const { value } = workOutAlone(store, `"" & (${formula})`, { standing, here })
	return typeof value === 'string' ? value : ''
}
