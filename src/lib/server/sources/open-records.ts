/** JSON and NDJSON (RFC 8259): a list of records, or one record a line. What is nested gets a name with dots. */
import { readFile } from 'node:fs/promises'
import { NOTHING_HELD, refusedFile, sheetOf, type OpenedFile, type Sheet } from './sheet.ts'

type Json = null | string | number | boolean | readonly Json[] | { readonly [key: string]: Json }

export async function openRecords(path: string, name: string): Promise<OpenedFile> {
	const text = (await readFile(path, 'utf8')).replace(/^\ufeff/, '').trim()
	const sheets = readSheets(text, name)
	if (sheets.length === 0) throw refusedFile(`${name} holds no list of records. Nothing was brought in.`)
	return { kind: 'records', sheets, close: NOTHING_HELD }
}

/** Nesting past what the stack bears is hostile, or no table. */
function readSheets(text: string, name: string): Sheet[] {
	try {
		return toSheets(parseJson(text) ?? parseLines(text, name), name)
	} catch (error) {
		if (error instanceof RangeError) throw refusedFile(`${name} is nested too deeply to be a table.`)
		throw error
	}
}

function parseJson(text: string): Json | undefined {
	try {
		return JSON.parse(text) as Json
	} catch {
		return undefined
	}
}

function parseLines(text: string, name: string): Json {
	return text.split(/\r?\n/).flatMap((line, i): Json[] => {
		if (line.trim() === '') return []
		const value = parseJson(line)
		if (value === undefined) throw refusedFile(`${name} cannot be read as JSON: line ${i + 1} is no record.`)
		return [value]
	})
}

/** A list is one sheet; an object whose parts are lists is a sheet for each. */
function toSheets(found: Json, name: string): Sheet[] {
	if (isList(found)) return found.length === 0 ? [] : [toSheet(name.replace(/\.\w+$/, ''), found)]
	if (!isRecord(found)) return []
	const lists = Object.entries(found).flatMap(([key, value]) =>
		isList(value) && value.length > 0 ? [toSheet(key, value)] : []
	)
	return lists.length > 0 ? lists : [toSheet(name.replace(/\.\w+$/, ''), [found])]
}

function toSheet(name: string, records: readonly Json[]): Sheet {
	const flat = records.map((record) => flatten(record))
	const columns = [...new Set(flat.flatMap((record) => [...record.keys()]))]
	const rows = [columns, ...flat.map((record) => columns.map((column) => record.get(column) ?? ''))]
	return { ...sheetOf(name, rows), said: { columns, key: undefined } }
}

function flatten(record: Json, prefix = '', into = new Map<string, string>()): Map<string, string> {
	if (isRecord(record)) {
		for (const [key, value] of Object.entries(record)) flatten(value, prefix === '' ? key : `${prefix}.${key}`, into)
	} else into.set(prefix === '' ? 'value' : prefix, toText(record))
	return into
}

function toText(value: Json): string {
	if (value === null) return ''
	if (!isList(value)) return typeof value === 'object' ? JSON.stringify(value) : String(value)
	const plain = value.every((each) => each === null || typeof each !== 'object')
	return plain ? value.map((each) => toText(each)).join('; ') : JSON.stringify(value)
}

function isList(value: Json): value is readonly Json[] {
	return Array.isArray(value)
}

function isRecord(value: Json): value is { readonly [key: string]: Json } {
	return typeof value === 'object' && value !== null && !isList(value)
}
