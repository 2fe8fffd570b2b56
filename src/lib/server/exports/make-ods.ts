/**
 * A spreadsheet of OpenDocument (ODF 1.3), written row by row into its archive: every cell with the type that it has, money
 * with its currency, spans as durations, days of any century.
 */
import { once } from 'node:events'
import { createWriteStream } from 'node:fs'
import { PassThrough } from 'node:stream'
import { finished } from 'node:stream/promises'
import { ZipFile } from 'yazl'
import { cellKey, type WireRow } from '$lib/core/query/wire.ts'
import { codeOf } from '$lib/core/table/kinds/currency.ts'
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
import {
	headingOf,
	isoDuration,
	sheetName,
	toSheetCell,
	type FileCell,
	type FileHead,
	type Making
} from './file-cell.ts'
import { formatOf, type ValueFormat } from './value-format.ts'

const MEDIA_TYPE = 'application/vnd.oasis.opendocument.spreadsheet'

export function makeOds({ name, columns }: FileHead, path: string): Making {
	const zip = new ZipFile()
	const file = createWriteStream(path, { mode: 0o600 })
	zip.outputStream.pipe(file)
	// Programs tell the format by it: first, and stored as it is (ODF 1.3, part 2, 3.3).
	zip.addBuffer(Buffer.from(MEDIA_TYPE), 'mimetype', { compress: false })
	zip.addBuffer(Buffer.from(MANIFEST), 'META-INF/manifest.xml')
	zip.addBuffer(Buffer.from(NO_STYLES), 'styles.xml')
	const content = new PassThrough()
	zip.addReadStream(content, 'content.xml')
	zip.end()
	const write = async (text: string) => {
		if (!content.write(text)) await once(content, 'drain')
	}
	const begun = write(headOf(sheetName(name), columns))
	return {
		async add(rows) {
			await begun
			await write(rows.map((row) => rowOf(columns, row)).join(''))
		},
		async end() {
			await begun
			content.end('</table:table></office:spreadsheet></office:body></office:document-content>')
			await finished(file)
		}
	}
}

const MANIFEST = `<?xml version="1.0" encoding="UTF-8"?>
<manifest:manifest xmlns:manifest="urn:oasis:names:tc:opendocument:xmlns:manifest:1.0" manifest:version="1.3"><manifest:file-entry manifest:full-path="/" manifest:version="1.3" manifest:media-type="${MEDIA_TYPE}"/><manifest:file-entry manifest:full-path="content.xml" manifest:media-type="text/xml"/><manifest:file-entry manifest:full-path="styles.xml" manifest:media-type="text/xml"/></manifest:manifest>`

const SPACES = ['office', 'style', 'table', 'text', 'number'].map((each) => {
	const space = each === 'number' ? 'datastyle' : each
	return `xmlns:${each}="urn:oasis:names:tc:opendocument:xmlns:${space}:1.0"`
})

/** Some programs will not open a spreadsheet without it. */
const NO_STYLES = `<?xml version="1.0" encoding="UTF-8"?>
<office:document-styles ${SPACES.join(' ')} office:version="1.3"><office:styles/></office:document-styles>`

function headOf(sheet: string, columns: readonly ShownColumn[]): string {
	const styles = columns.map((column, i) => stylesOf(column, i)).join('')
	const widths = columns.map((_column, i) => `<table:table-column table:default-cell-style-name="c${i}"/>`).join('')
	const headings = columns.map(
		(column) =>
			`<table:table-cell table:style-name="heading" office:value-type="string">${paragraphs(headingOf(column))}</table:table-cell>`
	)
	return `<?xml version="1.0" encoding="UTF-8"?>
<office:document-content ${SPACES.join(' ')} xmlns:fo="urn:oasis:names:tc:opendocument:xmlns:xsl-fo-compatible:1.0" office:version="1.3"><office:automatic-styles><style:style style:name="heading" style:family="table-cell"><style:text-properties fo:font-weight="bold"/></style:style>${styles}</office:automatic-styles><office:body><office:spreadsheet><table:table table:name="${escaped(sheet)}">${widths}<table:table-header-rows><table:table-row>${headings.join('')}</table:table-row></table:table-header-rows>`
}

/** A cell style for each column, with the style of its numbers where they have one (ODF 1.3, part 3, 16.29). */
function stylesOf(column: ShownColumn, i: number): string {
	const data = DATA_STYLES[formatOf(column)](column, `n${i}`)
	const named = data === '' ? '' : ` style:data-style-name="n${i}"`
	return `${data}<style:style style:name="c${i}" style:family="table-cell"${named}/>`
}

const DAY =
	'<number:year number:style="long"/><number:text>-</number:text><number:month number:style="long"/><number:text>-</number:text><number:day number:style="long"/>'
const CLOCK =
	'<number:hours number:style="long"/><number:text>:</number:text><number:minutes number:style="long"/><number:text>:</number:text><number:seconds number:style="long"/>'

type DataStyle = (column: ShownColumn, name: string) => string

const none: DataStyle = () => ''
const styled = (kind: string, name: string, inside: string, attributes = ''): string =>
	`<number:${kind}-style style:name="${name}"${attributes}>${inside}</number:${kind}-style>`
const digits = (places: number, attributes = ''): string =>
	`<number:number number:decimal-places="${places}" number:min-decimal-places="${places}" number:min-integer-digits="1"${attributes}/>`

/** Styles of numbers (ODF 1.3, part 3, 16.29), each under a name. */
const DATA_STYLES: Readonly<Record<ValueFormat, DataStyle>> = {
	text: none,
	'text as typed': none,
	'yes/no': none,
	'whole number': none,
	decimal: ({ places }, name) => (places === undefined ? '' : styled('number', name, digits(places))),
	number: none,
	money: ({ unit }, name) => {
		const symbol = unit === undefined ? '' : `<number:currency-symbol>${escaped(unit)}</number:currency-symbol>`
		return styled('currency', name, `${symbol}${digits(2, ' number:grouping="true"')}`)
	},
	percent: ({ places }, name) => styled('percentage', name, `${digits(places ?? 2)}<number:text>%</number:text>`),
	date: (_column, name) => styled('date', name, DAY),
	'date and time': (_column, name) => styled('date', name, `${DAY}<number:text> </number:text>${CLOCK}`),
	time: (_column, name) => styled('time', name, CLOCK),
	duration: (_column, name) => styled('time', name, CLOCK, ' number:truncate-on-overflow="false"')
}

function rowOf(columns: readonly ShownColumn[], row: WireRow): string {
	const cells = columns.map((column, i) => cellOf(column, i, toSheetCell(column, row.cells[cellKey(column.id)])))
	return `<table:table-row>${cells.join('')}</table:table-row>`
}

/** The value as the file has it, and as it is shown (ODF 1.3, part 3, 19.385 to 19.391). */
function cellOf(column: ShownColumn, i: number, value: FileCell): string {
	const cell = (attributes: string, shown: string) =>
		`<table:table-cell table:style-name="c${i}" ${attributes}>${paragraphs(shown)}</table:table-cell>`
	if (value === null || value === '') return '<table:table-cell/>'
	if (value instanceof Date) {
		const iso = value.toISOString().slice(0, formatOf(column) === 'date' ? 10 : 19)
		return cell(`office:value-type="date" office:date-value="${iso}"`, iso.replace('T', ' '))
	}
	if (typeof value === 'boolean')
		return cell(`office:value-type="boolean" office:boolean-value="${value}"`, value ? 'TRUE' : 'FALSE')
	if (typeof value === 'string') return cell('office:value-type="string"', value)
	switch (formatOf(column)) {
		case 'time':
		case 'duration': {
			const iso = isoDuration(value)
			return cell(`office:value-type="time" office:time-value="${iso}"`, iso)
		}
		case 'percent':
			return cell(`office:value-type="percentage" office:value="${value}"`, `${value * 100}%`)
		case 'money': {
			const code = codeOf(column.unit ?? '')
			const currency = code === '' ? '' : ` office:currency="${code}"`
			return cell(
				`office:value-type="currency"${currency} office:value="${value}"`,
				`${column.unit ?? ''}${value.toFixed(2)}`
			)
		}
		default:
			return cell(`office:value-type="float" office:value="${value}"`, String(value))
	}
}

/** Each line is a paragraph; spaces after the first, and tabs, are marks of their own (ODF 1.3, part 3, 6.1). */
function paragraphs(text: string): string {
	return text
		.split(/\r\n|\r|\n/)
		.map((line) => `<text:p>${spaced(escaped(line))}</text:p>`)
		.join('')
}

function spaced(line: string): string {
	return line
		.replace(/^ +| {2,}| +$/g, (spaces) => `<text:s text:c="${spaces.length}"/>`)
		.replaceAll('\t', '<text:tab/>')
}

/** Characters that XML cannot hold are left out (XML 1.0, 2.2): controls, and halves of pairs. */
const NO_XML = /[^\P{Cc}\t\n\r]|\p{Cs}|[\ufffe\uffff]/gu
const ESCAPES: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' }

function escaped(text: string): string {
	return text.replace(NO_XML, '').replace(/[&<>"]/g, (sign) => ESCAPES[sign] ?? sign)
}
