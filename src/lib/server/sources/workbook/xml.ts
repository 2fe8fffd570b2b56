/**
 * XML as it streams by. Names come without their prefix, since writers choose those; no entity is known but XML's own five,
 * so none can unfold.
 */
import { SaxesParser } from 'saxes'

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
	for await (const piece of pieces) {
		isEmpty = false
		parser.write(piece)
		yield
	}
	// A part that a workbook does without is no document.
	if (!isEmpty) parser.close()
}

export async function readAllXml(pieces: AsyncIterable<string>, handlers: XmlHandlers): Promise<void> {
	for await (const _piece of readXml(pieces, handlers)) continue
}

function bareName(name: string): string {
	const colon = name.indexOf(':')
	return colon < 0 ? name : name.slice(colon + 1)
}
