/**
 * XML as it streams by. Names come without their prefix, since writers choose those; no entity is known but XML's own five,
 * so none can unfold.
 */
import { SaxesParser } from 'saxes'
import { refusedFile } from '../sheet.ts'
import { LONGEST_TEXT } from '$lib/core/table/kinds/long-text.ts'

export interface Tag {
	/** Without prefix: `row`, `table-cell`. */
	readonly name: string
	/** An attribute by its name in the file, prefix and all. */
	readonly attributes: Readonly<Record<string, string>>
}

export interface XmlHandlers {
	open(tag: Tag): void
	close(name: string): void
	text(text: string): void
}

/** Feeds pieces of a document to the handlers; yields after each, so that whoever asks can take what has come, or leave. */
export async function* readXml(
	pieces: AsyncIterable<string>,
	{ open, close, text }: XmlHandlers
): AsyncGenerator<void> {
	const parser = new SaxesParser({ xmlns: false, position: false })
	parser.on('opentag', ({ name, attributes }) => open({ name: bareName(name), attributes }))
	parser.on('closetag', ({ name }) => close(bareName(name)))
	parser.on('text', text)
	parser.on('cdata', text)
	let isEmpty = true
	let run = 0
	for await (const piece of pieces) {
		isEmpty = false
		// The parser holds a text until it ends: one of any length would be in memory at once.
		const tag = piece.lastIndexOf('<')
		run = tag < 0 ? run + piece.length : piece.length - tag
		if (run > MOST_RUN) throw refusedFile(TOO_LONG)
		parser.write(piece)
		yield
	}
	// A part that a workbook does without is no document.
	if (!isEmpty) parser.close()
}

const MOST_RUN = 2_000_000
const TOO_LONG =
	'A cell of the workbook holds more than 2,000,000 characters, twenty times what a cell takes here. Shorten it, and save the workbook again.'

/** One more than any type of column takes: a cell that is longer is told by that, and no more of it is gathered. */
const MOST_TEXT = LONGEST_TEXT + 1

/** A text of a cell with more of it. A file can hold one of any length, and would have it in memory at once. */
export function withMore(text: string, more: string): string {
	return text.length + more.length > MOST_TEXT ? (text + more.slice(0, MOST_TEXT)).slice(0, MOST_TEXT) : text + more
}

export async function readAllXml(pieces: AsyncIterable<string>, handlers: XmlHandlers): Promise<void> {
	for await (const _piece of readXml(pieces, handlers)) continue
}

function bareName(name: string): string {
	const colon = name.indexOf(':')
	return colon < 0 ? name : name.slice(colon + 1)
}
