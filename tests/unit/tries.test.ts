/** Copies that builders try things on: who has one, and when it ends. The threads are the program's own. */
import { existsSync, mkdtempSync, readdirSync, truncateSync } from 'node:fs'
import { randomBytes } from 'node:crypto'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { afterEach, beforeEach, expect, test } from 'vitest'
import { copyDatabase } from '$lib/server/store/copy-database.ts'
import { openScratch } from '../support/scratch-store.ts'
import { openTries, type Tries } from '$lib/server/host/tries.ts'

const SCRIPTS = resolve('build/threads')
const HOUR = 3_600_000

let folder: string
let tries: Tries
let now: number
let copied: number

beforeEach(() => {
	folder = mkdtempSync(join(tmpdir(), 'tin-shed-tries-'))
	now = Date.parse('2026-11-28T12:00:00Z')
	copied = 0
	openScratch({ now, tables: [], file: join(folder, 'workspace.db') }).db.close()
	tries = openTries({
		folder,
		scripts: SCRIPTS,
		key: randomBytes(32).toString('hex'),
		now: () => now,
		copy: async (from, to) => {
			copied++
			copyDatabase({ from, to })
		}
	})
})
afterEach(() => tries.close())

const files = () =>
	existsSync(join(folder, 'tries')) ? readdirSync(join(folder, 'tries')).filter((name) => name.endsWith('.db')) : []

test('one copy for each builder, made once, and read by nobody else', async () => {
	expect(tries.find(1, 7)).toBeUndefined()
	const [room, again] = await Promise.all([tries.begin(1, 7), tries.begin(1, 7)])
	expect(again).toBe(room)
	expect(copied).toBe(1)
	expect(tries.find(1, 7)).toBe(room)
	expect(tries.find(2, 7)).toBeUndefined()
	expect((await room.read('workspace', undefined)).name).toBe('Scratch')
})

test('it ends with another version of the workspace, by hand, and leaves no file', async () => {
	await tries.begin(1, 7)
	expect(tries.find(1, 8)).toBeUndefined()
	await tries.begin(1, 8)
	expect([copied, files().length]).toEqual([2, 1])
	await tries.end(1)
	expect(files()).toEqual([])
})

test('a fifth ends the one that was not used for longest; idle ones end first', async () => {
	for (const looker of [1, 2, 3, 4]) {
		now += 1000
		await tries.begin(looker, 7)
	}
	now += 1000
	tries.find(1, 7)
	await tries.begin(5, 7)
	expect([1, 2, 3, 4, 5].filter((looker) => tries.find(looker, 7))).toEqual([1, 3, 4, 5])
	now += 3 * HOUR
	await tries.begin(6, 7)
	expect(files()).toHaveLength(1)
})

test('of a workspace over 2 GB there is none', async () => {
	truncateSync(join(folder, 'workspace.db'), 2 * 1024 ** 3 + 1)
	await expect(tries.begin(1, 7)).rejects.toThrow('larger than 2 GB')
	expect(tries.find(1, 7)).toBeUndefined()
})
