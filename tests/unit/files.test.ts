/**
 * Files in cells: only who may write a cell gives one in, only who sees the cell has it, each token serves one cell once,
 * and a file that a cell held before can be brought back to that cell alone.
 */
import { mkdtempSync, existsSync, readdirSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { beforeEach, describe, expect, test } from 'vitest'
import { plainFileName, showSize, type Attachment } from '$lib/core/capture/attachment.ts'
import { cellKey, isFileCell } from '$lib/core/query/wire.ts'
import type { CellChange, Change } from '$lib/core/query/change.ts'
import type { LineEntry } from '$lib/core/workspace/document.ts'
import { openFileStore } from '$lib/server/files/file-store.ts'
import { dropUnusedAppFiles, noteAppFile } from '$lib/server/apps/app-files.ts'
import { takeAppFile } from '$lib/server/files/app-files.ts'
import { checkUpload, dropOldUploads, noteUpload, readFileCell } from '$lib/server/rows/uploads.ts'
import { BUILDER } from '$lib/server/rights/system-roles.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import { countRows, readRows } from '$lib/server/rows/read.ts'
import { readHistory } from '$lib/server/rows/read-history.ts'
import type { Store } from '$lib/server/store/store.ts'

const NOW = Date.parse('2026-11-23T12:00:00Z')
const HOUR = 3_600_000
const INSPECTIONS = 2
const [TITLE, PHOTO, REPORT, PRIVATE] = [10, 11, 12, 13]
const [DIVER, CLERK, STRANGER] = [2, 3, 4]
const [DIVERS, CLERKS] = [10, 11]

const lines: LineEntry[] = [
	{ id: 'd', table: INSPECTIONS, role: DIVERS, verbs: ['see', 'add', 'change'], where: '', columns: { kind: 'all' } },
	{
		id: 'c',
		table: INSPECTIONS,
		role: CLERKS,
		verbs: ['see', 'change'],
		where: 'title <> "closed"',
		columns: { kind: 'only', columns: [TITLE, PHOTO] }
	}
]

let store: Store

beforeEach(() => {
	store = openScratch({
		now: NOW,
		tables: [
			{
				id: INSPECTIONS,
				name: 'Inspections',
				keepers: [KEEPER],
				label: TITLE,
				columns: [
					{ id: TITLE, name: 'Title', type: 'text' },
					{ id: PHOTO, name: 'Photo', type: 'photo' },
					{ id: REPORT, name: 'Report', type: 'file' },
					{ id: PRIVATE, name: 'Signed', type: 'signature' }
				]
			}
		],
		roles: [
			{ id: DIVERS, name: 'Divers', includes: [] },
			{ id: CLERKS, name: 'Clerks', includes: [] }
		],
		lines
	})
	for (const [n, name] of ['Imke', 'Corrie', 'Nobody'].entries())
		store.db
			.prepare('INSERT INTO t1 (n, made_at, changed_at, c1, c1k) VALUES (?, 0, 0, ?, ?)')
			.run(n + 2, name, name.toLowerCase())
	store.db.exec(`INSERT INTO role_held (person, role) VALUES (${DIVER}, ${DIVERS}), (${CLERK}, ${CLERKS})`)
})

let given = 0

function give(
	person: number,
	column: number,
	file: Partial<Attachment> = {},
	now = NOW
): { token: string; sha: string } {
	const token = `token ${++given}`
	const sha = String(given).padStart(64, '0')
	const all = { name: 'chain.jpg', type: 'image/jpeg', size: 1000, sha, ...file }
	noteUpload(store, { token, file: all, column, actor: { person }, now })
	return { token, sha: all.sha }
}

function act(person: number, change: Change) {
	return changeRows(store, [change], { actor: { person }, now: NOW, through: 'grid' })[0]
}

function add(person: number, cells: Record<number, CellChange['value']>): string {
	const list = Object.entries(cells).map(([column, value]) => ({ column: Number(column), value }))
	return act(person, { kind: 'add', table: INSPECTIONS, cells: list })?.row ?? ''
}

const put = (person: number, row: string, column: number, file: string | null) =>
	act(person, {
		kind: 'change',
		table: INSPECTIONS,
		row,
		cells: [{ column, value: file === null ? null : { file } }]
	})

const shaOf = (person: number, row: string, column: number) =>
	readFileCell(store, { actor: { person }, column, row, now: NOW })?.sha

describe('a file that is given in', () => {
	test('lies in the cell that it was given for, and is read through the door', () => {
		const { token, sha } = give(DIVER, PHOTO)
		const row = add(DIVER, { [TITLE]: 'NH-014', [PHOTO]: { file: token } })
		const cell = readRows(store, { person: DIVER }, { table: INSPECTIONS, row }, NOW).rows[0]?.cells[cellKey(PHOTO)]
		expect(isFileCell(cell) && cell.file).toEqual({ name: 'chain.jpg', type: 'image/jpeg', size: 1000, sha })
		expect(shaOf(DIVER, row, PHOTO)).toBe(sha)
	})

	test('serves one cell once, and its giver alone', () => {
		const { token } = give(DIVER, PHOTO)
		expect(() => add(KEEPER, { [PHOTO]: { file: token } })).toThrow('no longer waiting here')
		add(DIVER, { [PHOTO]: { file: token } })
		expect(() => add(DIVER, { [PHOTO]: { file: token } })).toThrow('no longer waiting here')
	})

	test('serves the column that it was given for', () => {
		const { token } = give(DIVER, REPORT)
		expect(() => add(DIVER, { [PHOTO]: { file: token } })).toThrow('Photo: this file is no longer waiting here')
	})

	test('still waits after a change that was refused', () => {
		const { token, sha } = give(CLERK, PHOTO)
		const row = add(DIVER, { [TITLE]: 'closed' })
		const attempt = store.db.transaction(() => put(CLERK, row, PHOTO, token))
		expect(() => attempt()).toThrow('not there, or not for you')
		act(DIVER, { kind: 'change', table: INSPECTIONS, row, cells: [{ column: TITLE, value: 'open' }] })
		put(CLERK, row, PHOTO, token)
		expect(shaOf(DIVER, row, PHOTO)).toBe(sha)
	})

	test.each([
		['who may write nothing', STRANGER, PHOTO],
		['who may not write this column', CLERK, PRIVATE],
		['for a column that holds no files', DIVER, TITLE],
		['for a column that is not there', DIVER, 999]
	])('is refused: %s', (_what, person, column) => {
		expect(() => checkUpload(store, { column, actor: { person }, now: NOW })).toThrow('no line of access lets you')
	})

	test('is refused in the Lookout', () => {
		const actor = { person: DIVER, lookedAtBy: KEEPER }
		expect(() => checkUpload(store, { column: PHOTO, actor, now: NOW })).toThrow(
			'changes nothing but a copy of the data'
		)
	})

	test('must be a picture where a picture belongs, by its content', () => {
		const name = 'chain.jpg'
		expect(() => give(DIVER, PHOTO, { name, type: 'text/html' })).toThrow('Photo takes a picture')
		expect(() => give(DIVER, PRIVATE, { name, type: 'image/svg+xml' })).toThrow('Signed takes a picture')
		expect(() => give(DIVER, REPORT, { name, type: 'application/octet-stream' })).not.toThrow()
	})
})

describe('who has a file', () => {
	test('is who sees row and column, and nobody else', () => {
		const [photo, signed] = [give(DIVER, PHOTO), give(DIVER, PRIVATE)]
		const row = add(DIVER, { [TITLE]: 'NH-014', [PHOTO]: { file: photo.token }, [PRIVATE]: { file: signed.token } })
		expect(shaOf(CLERK, row, PHOTO)).toBe(photo.sha)
		expect(shaOf(CLERK, row, PRIVATE)).toBeUndefined()
		expect(shaOf(STRANGER, row, PHOTO)).toBeUndefined()
		expect(shaOf(STRANGER, 'AAAAAAAAAAAAAAAAAAAAAA', PHOTO)).toBeUndefined()
		act(DIVER, { kind: 'change', table: INSPECTIONS, row, cells: [{ column: TITLE, value: 'closed' }] })
		expect(shaOf(CLERK, row, PHOTO)).toBeUndefined()
		expect(shaOf(DIVER, row, PHOTO)).toBe(photo.sha)
	})
})

describe('a file that was there before', () => {
	test('comes back to its own cell, and to no other', () => {
		const first = give(DIVER, PHOTO)
		const row = add(DIVER, { [TITLE]: 'NH-014', [PHOTO]: { file: first.token } })
		const other = add(DIVER, { [TITLE]: 'NH-015' })
		put(DIVER, row, PHOTO, give(DIVER, PHOTO).token)
		expect(() => put(DIVER, other, PHOTO, first.sha)).toThrow('no longer waiting here')
		expect(() => put(DIVER, row, REPORT, first.sha)).toThrow('no longer waiting here')
		put(DIVER, row, PHOTO, first.sha)
		expect(shaOf(DIVER, row, PHOTO)).toBe(first.sha)
		put(DIVER, row, PHOTO, null)
		expect(shaOf(DIVER, row, PHOTO)).toBeUndefined()
	})

	test('is told in the history with its size, since cameras call all photos alike', () => {
		const row = add(DIVER, { [PHOTO]: { file: give(DIVER, PHOTO).token } })
		put(DIVER, row, PHOTO, give(DIVER, PHOTO, { size: 2_400_000 }).token)
		const [entry] = readHistory(store, { table: INSPECTIONS, row, actor: { person: DIVER }, now: NOW })
		expect(entry?.cells).toEqual([{ name: 'Photo', from: 'chain.jpg, 1 kB', to: 'chain.jpg, 2.4 MB' }])
	})
})

test('formulas, filters and totals see a file by its name', () => {
	add(DIVER, { [PHOTO]: { file: give(DIVER, PHOTO, { name: 'Chain.JPG' }).token } })
	add(DIVER, { [TITLE]: 'none' })
	const count = (where: string) =>
		countRows(store, { person: DIVER }, { table: INSPECTIONS, where: [where], limit: 10 }, NOW)
	expect(count('Photo = "chain.jpg"')).toBe(1)
	expect(count('ISBLANK(Photo)')).toBe(1)
	expect(count('RIGHT(Photo; 3) = "jpg"')).toBe(1)
})

describe('files that no cell took up', () => {
	test('go after two days, with their bytes unless another cell has the same', () => {
		const [lost, kept] = [give(DIVER, PHOTO), give(DIVER, PHOTO)]
		const twin = give(DIVER, REPORT, { sha: 'f'.repeat(64) })
		give(DIVER, REPORT, { sha: 'f'.repeat(64) })
		add(DIVER, { [PHOTO]: { file: kept.token }, [REPORT]: { file: twin.token } })
		expect(dropOldUploads(store, { now: NOW + 47 * HOUR })).toEqual([])
		expect(dropOldUploads(store, { now: NOW + 49 * HOUR })).toEqual([lost.sha])
		expect(() => add(DIVER, { [PHOTO]: { file: lost.token } })).toThrow('Choose it again')
	})

	test('fill no more than their share', () => {
		for (let i = 0; i < 21; i++) give(DIVER, REPORT, { size: 25 * 1024 * 1024 })
		expect(() => give(DIVER, REPORT)).toThrow('Too many files wait')
		expect(() => give(KEEPER, REPORT)).not.toThrow()
	})
})

describe('bytes on disk', () => {
	const PNG = Buffer.from(
		'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg==',
		'base64'
	)
	const body = (bytes: Uint8Array): ReadableStream<Uint8Array> => new Blob([bytes as never]).stream()

	const WRITES = { noteUpload, dropOldUploads, dropUnusedAppFiles }

	function openOn(folder: string) {
		return openFileStore(folder, {
			now: () => NOW,
			read: async (name, args) => (name === 'checkUpload' ? checkUpload(store, args as never) : null) as never,
			write: async (name, args) => WRITES[name as keyof typeof WRITES](store, args as never) as never
		})
	}

	const taken = (column: number, bytes: Uint8Array, name = '../../etc/chain.png') => ({
		column,
		name,
		body: body(bytes),
		actor: { person: DIVER }
	})

	test('lie under what they are, whatever they are called, and are known by their content', async () => {
		const folder = mkdtempSync(join(tmpdir(), 'tin-shed-files-'))
		const files = openOn(folder)
		const { file, token } = await files.take(taken(PHOTO, PNG))
		expect(file).toMatchObject({ name: 'chain.png', type: 'image/png', size: PNG.length })
		expect(readdirSync(join(folder, file.sha.slice(0, 2)))).toEqual([file.sha])
		const row = add(DIVER, { [PHOTO]: { file: token } })
		const stream = await files.read(shaOf(DIVER, row, PHOTO) ?? '')
		expect(Buffer.from(await new Response(stream).arrayBuffer()).equals(PNG)).toBe(true)
		files.close()
	})

	test('are not kept where they do not fit', async () => {
		const folder = mkdtempSync(join(tmpdir(), 'tin-shed-files-'))
		const files = openOn(folder)
		const page = new TextEncoder().encode('<html><script>alert(1)</script></html>')
		await expect(files.take(taken(PHOTO, page, 'chain.png'))).rejects.toThrow('none by its content')
		await expect(files.take(taken(REPORT, new Uint8Array(0)))).rejects.toThrow('empty')
		await expect(files.take(taken(REPORT, new Uint8Array(25 * 1024 * 1024 + 1)))).rejects.toThrow('larger than')
		expect(existsSync(join(folder, 'incoming')) ? readdirSync(join(folder, 'incoming')) : []).toEqual([])
		files.close()
	})
})

test.each([
	['chain.jpg', 'chain.jpg'],
	['../../secret.key', 'secret.key'],
	['C:\\photos\\chain.jpg', 'chain.jpg'],
	['a\nb\u202egpj.exe', 'abgpj.exe'],
	['', 'file'],
	['x'.repeat(300), 'x'.repeat(120)]
])('%j is shown as %j', (given, shown) => {
	expect(plainFileName(given)).toBe(shown)
})

test.each([
	[12, '12 bytes'],
	[412_300, '412 kB'],
	[1_300_000, '1.3 MB']
])('%d bytes read as %s', (bytes, shown) => {
	expect(showSize(bytes)).toBe(shown)
})

describe('files of apps', () => {
	const DAY = 24 * HOUR
	beforeEach(() => store.prepare(`INSERT INTO role_held (person, role) VALUES (?, ?)`).run(KEEPER, BUILDER))

	const sha = (letter: string) => letter.repeat(64)
	const give = (letter: string, now = NOW) =>
		noteAppFile(store, { sha: sha(letter), type: 'image/webp', size: 1, actor: { person: KEEPER }, now })
	const show = (letter: string) =>
		store
			.prepare(`INSERT INTO document (kind, version, body, made_at, made_by) VALUES ('app 9', ?, ?, 0, NULL)`)
			.run(letter.charCodeAt(0), JSON.stringify({ screens: [{ lines: [{ picture: { sha: sha(letter) } }] }] }))

	test('go a week after they were given, unless a version of an app shows them or a cell holds the same', () => {
		for (const letter of ['a', 'b', 'c', 'd']) give(letter)
		show('a')
		store
			.prepare(
				`INSERT INTO upload (token_hash, person, table_id, column_id, sha, name, type, size, at, attached)
				 VALUES ('t', 1, 1, 1, ?, 'x', 'image/webp', 1, ?, 1)`
			)
			.run(sha('b'), NOW)
		expect(dropUnusedAppFiles(store, { now: NOW + 6 * DAY })).toEqual([])
		// Given once more, it stays as long again.
		give('d', NOW + 6 * DAY)
		expect(dropUnusedAppFiles(store, { now: NOW + 8 * DAY })).toEqual([sha('c')])
		expect(dropUnusedAppFiles(store, { now: NOW + 60 * DAY })).toEqual([sha('d')])
	})

	test('that browsers do not draw are refused with the remedy, and leave nothing behind', async () => {
		// Made with libheif 1.15 (`heif-enc`): 64 by 64 pixels of one colour.
		const heic = Buffer.from(
			'AAAAHGZ0eXBoZWljAAAAAG1pZjFoZWljbWlhZgAAAUJtZXRhAAAAAAAAACFoZGxyAAAAAAAAAABwaWN0AAAAAAAAAAAAAAAAAAAAAA5waXRtAA' +
				'AAAAABAAAAImlsb2MAAAAAREAAAQABAAAAAAFmAAEAAAAAAAAAGQAAACNpaW5mAAAAAAABAAAAFWluZmUCAAAAAAEAAGh2YzEAAAAAwmlwcnAA' +
				'AACkaXBjbwAAAHhodmNDAQNwAAAAAAAAAAAAHvAA/P34+AAADwMgAAEAGEABDAH//wNwAAADAJAAAAMAAAMAHroCQCEAAQArQgEBA3AAAAMAkA' +
				'AAAwAAAwAeoCCBBZbqSSmubgQEDAgAAAMACAAAAwAIQCIAAQAHRAHBcrAiQAAAABRpc3BlAAAAAAAAAEAAAABAAAAAEHBpeGkAAAAAAwgICAAA' +
				'ABZpcG1hAAAAAAAAAAEAAQOBAoMAAAAhbWRhdAAAABUoAa8ZgPd8hTf/+nGRHO1b+CBXi0c=',
			'base64'
		)
		const folder = mkdtempSync(join(tmpdir(), 'tin-shed-heic-'))
		const host = { now: () => NOW, write: () => Promise.reject(new Error('was noted')) } as never
		const body = new Blob([heic]).stream()
		const given = { kind: 'picture', name: 'IMG_0417.HEIC', body, actor: { person: KEEPER } } as const
		await expect(takeAppFile(folder, host, given)).rejects.toThrow('Save it as JPEG first.')
		expect(readdirSync(folder, { recursive: true }).filter((name) => !String(name).startsWith('incoming'))).toEqual([])
	})
})
