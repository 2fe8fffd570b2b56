/** JSON and NDJSON: a document with tables in it, or one record a line (`core/exchange/read-json.ts`). */
import { readFile } from 'node:fs/promises'
import { parseJson, tablesIn, type Json, type JsonTable } from '$lib/core/exchange/read-json.ts'
import { NOTHING_HELD, refusedFile, sheetOf, type OpenedFile, type Sheet } from './sheet.ts'

export async function openRecords(path: string, name: string): Promise<OpenedFile> {
	const text = (await readFile(path, 'utf8')).replace(/^\ufeff/, '').trim()
	const sheets = readSheets(text, name)
	if (sheets.length === 0) throw refusedFile(`${name} holds no list of records. Nothing was brought in.`)
	return { kind: 'records', sheets, close: NOTHING_HELD }
}

/** Nesting past what the stack bears is hostile, or no table. */
function readSheets(text: string, name: string): Sheet[] {
	try {
		const found = parseJson(text) ?? parseLines(text, name)
		return tablesIn(found, name.replace(/\.\w+$/, '')).map(toSheet)
	} catch (error) {
		if (error instanceof RangeError) throw refusedFile(`${name} is nested too deeply to be a table.`)
		throw error
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

function toSheet({ name, columns, rows, typed, aside }: JsonTable): Sheet {
	const notes = aside.map(
		(list) => `${list}: lists within records are left aside. Bring them in from a file of their own.`
	)
	return {
		...sheetOf(name, [columns, ...rows], [undefined, ...typed]),
		said: { columns, key: undefined },
		notes: () => notes
	}
}
