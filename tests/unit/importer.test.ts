/** The threads that read files: a large one holds up nobody, a look can be left, one that fell is started anew; what is refused goes. */
import { existsSync, mkdtempSync, readdirSync, utimesSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { buffer } from 'node:stream/consumers'
import { afterEach, describe, expect, test } from 'vitest'
import { ZipFile } from 'yazl'
import { AppError } from '$lib/core/app-error.ts'
import { openImporter, type Importer } from '$lib/server/imports/importer.ts'
import { openImports } from '$lib/server/imports/imports.ts'
import { inspectFile } from '$lib/server/sources/inspect.ts'
import type { Host } from '$lib/server/host/host.ts'

const folder = () => mkdtempSync(join(tmpdir(), 'tin-shed-importer-'))
let importer: Importer | undefined
afterEach(async () => {
	await importer?.close()
	importer = undefined
})

function csv(name: string, rows: number): { path: string; name: string } {
	const path = join(folder(), name)
	const lines = Array.from(
		{ length: rows },
		(_row, i) => `NH-${i},${i % 90},Ness Hythe,2026-04-${String((i % 28) + 1).padStart(2, '0')}`
	)
	writeFileSync(path, `Code,Depth,Harbour,Seen\n${lines.join('\n')}\n`)
	return { path, name }
}

describe('threads', () => {
	test('a small file, and one that leaves, are done while a large one is read', async () => {
		importer = openImporter(resolve('build/threads/importer.js'))
		const done: string[] = []
		const note = (what: string) => () => void done.push(what)
		const large = importer.inspect(csv('large.csv', 900_000)).then(note('large'))
		const small = importer.inspect(csv('small.csv', 10)).then(note('small'))
		const path = join(folder(), 'out.json')
		const columns: never[] = []
		const out = importer.beginFile({ path, format: 'json', name: 'Out', columns } as never).then(note('out'))
		await Promise.all([large, small, out])
		expect(done.at(-1)).toBe('large')
	})

	test('a look at a large file ends when nobody waits for it', async () => {
		importer = openImporter(resolve('build/threads/importer.js'))
		const ending = new AbortController()
		const large = csv('large.csv', 900_000)
		const look = importer.inspect(large, ending.signal)
		const waited = importer.inspect(csv('small.csv', 10))
		await waited
		ending.abort()
		await expect(look).rejects.toMatchObject({ code: 'busy' })
		expect((await importer.inspect(large)).rowCount).toBe(900_000)
	})

	test('no more than two large ones are read at once; the others wait their turn', async () => {
		importer = openImporter(resolve('build/threads/importer.js'))
		const large = csv('large.csv', 60_000)
		const found = await Promise.all(Array.from({ length: 4 }, () => importer?.inspect(large)))
		expect(found.map((each) => each?.rowCount)).toEqual([60_000, 60_000, 60_000, 60_000])
	})

	test('one that fell is started anew, and what it was at is refused', async () => {
		const script = join(folder(), 'falls.mjs')
		writeFileSync(
			script,
			`import { parentPort } from 'node:worker_threads'
			parentPort.postMessage('ready')
			parentPort.on('message', ({ id, args }) => {
				if (args.name === 'bad.csv') process.exit(3)
				parentPort.postMessage({ id, ok: true, json: '"read"' })
			})`
		)
		importer = openImporter(script)
		const good = { path: join(folder(), 'good.csv'), name: 'good.csv' }
		expect(await importer.inspect(good)).toBe('read')
		await expect(importer.inspect({ ...good, name: 'bad.csv' })).rejects.toThrow()
		expect(await importer.inspect(good)).toBe('read')
	})
})

describe('files that were given in', () => {
	const actor = { person: 1 }
	const body = (text: string) => new Blob([text]).stream() as ReadableStream<Uint8Array>
	const open = (place: string, parts: Partial<Importer>, now = Date.now()) =>
		openImports(
			place,
			{ close: () => Promise.resolve(), ...parts } as Importer,
			{
				now: () => now,
				write: () => Promise.resolve()
			} as unknown as Host
		)

	test('one that is refused is removed at once, and is not there any more', async () => {
		const place = folder()
		const imports = open(place, { inspect: () => Promise.reject(new AppError('invalid', 'a.csv is empty.')) })
		const { id } = await imports.take('a.csv', body('x'), actor)
		expect(readdirSync(place)).toHaveLength(1)
		await expect(imports.inspect(id, {}, actor)).rejects.toThrow('a.csv is empty.')
		expect(readdirSync(place)).toHaveLength(0)
		await expect(imports.inspect(id, {}, actor)).rejects.toThrow('no longer here')
		await imports.close()
	})

	test('one whose look was left stays, to be looked at again', async () => {
		const place = folder()
		let tries = 0
		const imports = open(place, {
			inspect: () =>
				tries++ === 0 ? Promise.reject(new AppError('busy', 'This was stopped.')) : Promise.resolve({} as never)
		})
		const { id } = await imports.take('a.csv', body('x'), actor)
		await expect(imports.inspect(id, {}, actor)).rejects.toThrow('stopped')
		expect(await imports.inspect(id, {}, actor)).toEqual({ file: 'a.csv' })
		await imports.close()
	})

	test('what an earlier run left goes after two days, with what a database put beside it', async () => {
		const place = folder()
		const old = new Date(Date.now() - 49 * 3_600_000)
		for (const name of ['left', 'left-wal', 'fresh']) {
			writeFileSync(join(place, name), 'x')
			if (name !== 'fresh') utimesSync(join(place, name), old, old)
		}
		const imports = open(place, {})
		await expect.poll(() => readdirSync(place)).toEqual(['fresh'])
		await imports.close()
	})
})

describe('what a file is', () => {
	const inspect = (name: string, bytes: Uint8Array | string) => {
		const path = join(folder(), 'file')
		writeFileSync(path, bytes)
		return inspectFile({ path, name })
	}

	test.each([
		['stock.xlsx', '<!DOCTYPE html><html><table><tr><td>1</td></tr></table></html>', 'stock.xlsx is a web page'],
		['stock.csv', '\ufeff<html><body>', 'stock.csv is a web page'],
		['stock.csv', '<?xml version="1.0"?><rows/>', 'stock.csv is XML'],
		['stock.xlsx', '%PDF-1.7', 'stock.xlsx is a PDF'],
		['stock.csv', 'Received: from mail.example\nSubject: stock', 'stock.csv is a mail']
	])('%s that begins with %j is named as what it is', async (name, text, words) => {
		await expect(inspect(name, text)).rejects.toThrow(words)
	})

	const COMPOUND = Buffer.from([0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1, 0x1a, 0xe1])
	test.each([
		[Buffer.alloc(70_000), 'stock.xlsx is of an old kind of file, of before 2007. Save it again as .xlsx.'],
		// The name lies across two of the pieces that the file is read in.
		[
			Buffer.concat([Buffer.alloc(65_536 - 16), Buffer.from('EncryptedPackage', 'utf16le')]),
			'is locked with a password.'
		]
	])('a compound file, by what it holds', async (rest, words) => {
		await expect(inspect('stock.xlsx', Buffer.concat([COMPOUND, rest]))).rejects.toThrow(words)
	})

	test('an archive that is no workbook, and a name that promises one', async () => {
		const zip = new ZipFile()
		zip.addBuffer(Buffer.from('x'), 'letter.txt')
		zip.end()
		const bytes = await buffer(zip.outputStream)
		await expect(inspect('stock.xlsx', bytes)).rejects.toThrow('stock.xlsx is an archive, but no workbook.')
		await expect(inspect('stock.xlsx', Buffer.alloc(400))).rejects.toThrow('says it is a workbook, but it is not')
		await expect(inspect('stock.xlsx', bytes.subarray(0, -30))).rejects.toThrow('stock.xlsx is damaged.')
	})

	test('numbers of JSON are in no doubt, however they look', async () => {
		const found = await inspect('depths.json', '[{"depth":1.234},{"depth":5.678}]')
		expect(found.columns[0]).toMatchObject({ type: 'decimal', places: 3, doubts: [] })
		const texts = await inspect('depths.json', '[{"depth":"1.234"},{"depth":"5.678"}]')
		expect(texts.columns[0]?.doubts.map(({ kind }) => kind)).toEqual(['dot or comma'])
	})

	test('a text under the name of a workbook is read as the text that it is, and that is said', async () => {
		const found = await inspect('stock.xlsx', 'Code,Item\nA,Rope\nB,Chain\n')
		expect(found.rowCount).toBe(2)
		expect(found.notes).toEqual(['stock.xlsx is no workbook but a text, and is read as one.'])
	})

	test('a few characters of no value in a small file are told, and left out', async () => {
		const found = await inspect('stock.csv', 'Code,Item\nA,Ro\u0000pe\nB,Cha\u0000in\n')
		expect(found.notes).toEqual(['2 characters of no value (U+0000) are left out.'])
		expect(found.head[1]).toEqual(['A', 'Rope'])
	})

	test('letters of another encoding far down are read, and bytes that are none are told', async () => {
		const text = Buffer.from(`Code,Item\n${'A,Rope\n'.repeat(40_000)}B,`)
		const found = await inspect(
			'stock.csv',
			Buffer.concat([text, Buffer.from([0x4b, 0xe4, 0x74, 0x81]), Buffer.from('\n')])
		)
		expect(found.notes[0]).toContain('1 byte of the file stands for no letter in Windows-1252')
		expect(found.columns[1]?.choices ?? []).toEqual(expect.arrayContaining(['Rope']))
	})
})

describe('what is said at the look', () => {
	const inspect = (text: string) => {
		const path = join(folder(), 'odd.csv')
		writeFileSync(path, text)
		return inspectFile({ path, name: 'odd.csv' })
	}

	test('more columns than a table takes', async () => {
		const wide = Array.from({ length: 3_000 }, (_column, i) => `c${i}`).join(',')
		await expect(inspect(`${wide}\n${wide}\n`)).rejects.toThrow(
			'odd.csv has 3,000 columns, and a table takes at most 500.'
		)
	})

	test('a cell that is longer than any column takes, with its row; the preview shows how it begins', async () => {
		const found = await inspect(`Code,Note\nA,short\nB,${'x'.repeat(120_000)}\n`)
		expect(found.notes).toEqual([
			'Note: row 3 holds more than 100,000 characters, which is as much as a cell takes. It will be listed as unread.'
		])
		expect(found.head[2]?.[1]).toHaveLength(301)
		expect(JSON.stringify(found).length).toBeLessThan(10_000)
	})
})

test('a workbook made to swell is refused before it is unfolded', async () => {
	const { deflateRawSync } = await import('node:zlib')
	const inside = Buffer.alloc(64 * 1024 * 1024)
	const packed = deflateRawSync(inside)
	const name = Buffer.from('xl/worksheets/sheet1.xml')
	const local = Buffer.alloc(30)
	local.writeUInt32LE(0x04034b50, 0)
	local.writeUInt16LE(name.length, 26)
	const entry = Buffer.alloc(46)
	entry.writeUInt32LE(0x02014b50, 0)
	entry.writeUInt16LE(8, 10)
	entry.writeUInt32LE(packed.length, 20)
	entry.writeUInt32LE(inside.length, 24)
	entry.writeUInt16LE(name.length, 28)
	const end = Buffer.alloc(22)
	end.writeUInt32LE(0x06054b50, 0)
	end.writeUInt16LE(1, 10)
	end.writeUInt32LE(local.length + name.length + packed.length, 16)
	const path = join(folder(), 'swell.xlsx')
	writeFileSync(path, Buffer.concat([local, name, packed, entry, name, end]))
	expect(existsSync(path)).toBe(true)
	await expect(inspectFile({ path, name: 'swell.xlsx' })).rejects.toThrow('unfolds to more than fits')
})
