/** Writes a document for whoever gets it, line by line, with their sight of this moment. */
import { cellKey, isFileCell } from '$lib/core/query/wire.ts'
import type { PagePart } from '$lib/core/requests/report.ts'
import { showCell } from '$lib/core/requests/show-cell.ts'
import type { WholeDocument } from '$lib/core/routine/document-step.ts'
import { describeColumns } from '../rows/describe-columns.ts'
import { readRows } from '../rows/read.ts'
import type { Store } from '../store/store.ts'
import { composeFor } from './compose.ts'
import type { MadeReport } from './made-report.ts'
import { requestFor, rowsAround, rowsFor, type Writing } from './read-for.ts'
import type { RowAt } from './work-out.ts'

/** More rows than anybody prints; the rest is counted. */
const MOST_ROWS = 2_000

/** Null where they do not see the row that it is about, or it is gone. */
export function makeDocument(store: Store, step: WholeDocument, writing: Writing): MadeReport | null {
	const { report, now } = writing
	const { person, app } = report
	const { at, outer } = rowsAround(store, report)
	if (report.at && !(at && isSeen(store, at, { person, now }))) return null
	const words = (text: string) => composeFor(store, text, { at, outer, to: person, now })
	const parts = step.lines.flatMap((line) => partOf(store, line, { ...writing, at, words }))
	const subject = words(step.subject)
	const row = at ? `?row=${store.ids.toId(at.table.id, at.n)}` : ''
	return {
		...{ subject, body: words(step.body), link: step.opens ? `/app/${app}/${step.opens}${row}` : null },
		table: at?.table.id ?? null,
		what: namesIn(parts),
		rows: parts.reduce((sum, part) => sum + (part.kind === 'rows' ? part.table.rows.length : 0), at ? 1 : 0),
		shown: null,
		file: { kind: 'pages', name: fileName(subject), pages: [{ kind: 'heading', text: subject }, ...parts] }
	}
}

interface Around extends Writing {
	readonly at: RowAt | undefined
	readonly words: (text: string) => string
}

function partOf(store: Store, line: WholeDocument['lines'][number], around: Around): PagePart[] {
	switch (line.kind) {
		case 'heading':
		case 'words':
			return [{ kind: line.kind, text: around.words(line.text) }]
		case 'values':
			return valuesOf(store, line.columns, around)
		case 'picture':
			return pictureOf(store, line.column, around)
		case 'list': {
			const request = requestFor(store, around, line)
			const found = rowsFor(store, around, { request, show: MOST_ROWS, count: MOST_ROWS * 100 })
			return found ? [{ kind: 'rows', table: found.shown }] : []
		}
	}
}

function valuesOf(store: Store, ids: readonly number[], { at, report, now }: Around): PagePart[] {
	if (!at) return []
	const page = readRow(store, at, ids, { person: report.person, now })
	const [row] = page.rows
	if (!row) return []
	const values = describeColumns(at.table, page.columns).map((column) => ({
		name: column.name,
		text: showCell(column, row.cells[cellKey(column.id)])
	}))
	return [{ kind: 'values', values }]
}

function pictureOf(store: Store, id: number, { at, report, now }: Around): PagePart[] {
	const cell = at && readRow(store, at, [id], { person: report.person, now }).rows[0]?.cells[cellKey(id)]
	if (!isFileCell(cell)) return []
	const { name, sha, type } = cell.file
	return [{ kind: 'picture', name, sha, type }]
}

function isSeen(store: Store, at: RowAt, by: { person: number; now: number }): boolean {
	return readRow(store, at, [at.table.label], by).rows.length > 0
}

function readRow(store: Store, { table, n }: RowAt, columns: readonly number[], by: { person: number; now: number }) {
	const asked = { table: table.id, row: store.ids.toId(table.id, n), columns: [...columns], limit: 1 }
	return readRows(store, { person: by.person }, asked, by.now)
}

/** What of rows is in it, for the Logbook. */
function namesIn(parts: readonly PagePart[]): string {
	const names = parts.flatMap((part) => {
		if (part.kind === 'values') return part.values.map(({ name }) => name)
		return part.kind === 'rows' ? part.table.heads.map(({ name }) => name) : []
	})
	return [...new Set(names)].join(', ')
}

/** As a file may be called anywhere. */
function fileName(subject: string): string {
	const plain = subject.replace(/[^\p{L}\p{N} ,.()'-]+/gu, ' ').trim()
	return plain === '' ? 'Document' : plain.slice(0, 80)
}
