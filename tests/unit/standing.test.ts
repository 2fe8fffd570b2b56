/**
 * What goes wrong around the program rather than in it: copies made while people write, a key that is gone, a second program,
 * files that are damaged or cut, a disk that is full. Each is told in one sentence with what to do, and nothing is replaced.
 */
import { spawn, spawnSync } from 'node:child_process'
import {
	copyFileSync,
	cpSync,
	existsSync,
	mkdtempSync,
	readdirSync,
	readFileSync,
	rmSync,
	statSync,
	truncateSync,
	writeFileSync
} from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { afterEach, beforeAll, describe, expect, test, vi } from 'vitest'
import { makeDemo } from '../../demo/make-demo.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'
import { checkCopy } from '$lib/server/commands/check-copy.ts'
import { openForWriting } from '$lib/server/store/open.ts'
import { sayForOperator } from '$lib/server/base/for-operator.ts'
import { openHost, type Host } from '$lib/server/host/host.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import { watchHealth } from '$lib/server/store/store-health.ts'
import { toAnswer } from '$lib/server/threads/protocol.ts'

const NOW = Date.parse('2026-11-23T12:00:00Z')
let made: string
let host: Host | undefined

beforeAll(async () => {
	made = mkdtempSync(join(tmpdir(), 'tin-shed-standing-'))
	await makeDemo(made, NOW)
})
afterEach(async () => {
	await host?.close()
	host = undefined
})

function copyOfDemo(): string {
	const folder = mkdtempSync(join(tmpdir(), 'tin-shed-standing-'))
	cpSync(made, folder, { recursive: true })
	return folder
}

const open = async (folder: string): Promise<Host> =>
	(host = await openHost({ folder, scripts: resolve('build/threads'), origin: 'http://127.0.0.1:1' }))

/** What whoever starts it is told. */
async function toldAt(folder: string): Promise<string | undefined> {
	try {
		await open(folder)
		return undefined
	} catch (error) {
		return sayForOperator(error, folder)
	}
}

function run(command: string, folder: string, ...args: string[]) {
	const env = { ...process.env, TIN_SHED_DATA: folder }
	return spawnSync(process.execPath, [`build/threads/${command}.js`, ...args], { encoding: 'utf8', env })
}

/** One line, and no stack. */
function expectOneLine(text: string, words: string): void {
	expect(text).toContain(words)
	expect(text.trim().split('\n')).toHaveLength(1)
}

describe('copies made while twelve people write', () => {
	test('are good, every one of them', async () => {
		const folder = copyOfDemo()
		const { read, write } = await open(folder)
		const people = await read('people', undefined)
		const saskia = people.find((each) => each.name === 'Saskia Holm')?.person ?? 0
		const { tables } = await read('bench', { actor: { person: saskia }, now: NOW })
		const harbours = tables.find((each) => each.name === 'Harbours')
		let isOver = false
		let written = 0
		const writeOn = async (): Promise<void> => {
			while (!isOver) {
				const cells = [{ column: harbours?.label ?? 0, value: `Slip ${written++}` }]
				const context = { actor: { person: saskia }, now: NOW, through: 'grid' as const }
				await write('changeRows', { changes: [{ kind: 'add', table: harbours?.id ?? 0, cells }], context })
			}
		}
		const writers = Array.from({ length: 12 }, writeOn)
		for (let i = 0; i < 6; i++) {
			const copying = spawn(process.execPath, ['build/threads/backup.js'], {
				env: { ...process.env, TIN_SHED_DATA: folder },
				stdio: 'inherit'
			})
			expect(await new Promise((done) => copying.on('exit', done))).toBe(0)
		}
		isOver = true
		await Promise.all(writers)
		const copies = readdirSync(join(folder, 'backup')).filter((name) => name.endsWith('.db'))
		expect(copies).toHaveLength(6)
		expect(written).toBeGreaterThan(100)
		for (const name of copies) expect(checkCopy(join(folder, 'backup', name))).toBeUndefined()
	})
})

describe('the key', () => {
	test('that is gone is not replaced; one that is damaged is not used', async () => {
		const folder = copyOfDemo()
		const key = readFileSync(join(folder, 'secret.key'), 'utf8')
		rmSync(join(folder, 'secret.key'))
		expect(await toldAt(folder)).toMatch(/secret\.key is gone.*Put it back.*npm run new-key/)
		expect(existsSync(join(folder, 'secret.key'))).toBe(false)
		expectOneLine(run('first-start', folder).stderr, 'secret.key is gone')
		writeFileSync(join(folder, 'secret.key'), key.slice(0, 20))
		expect(await toldAt(folder)).toContain('holds no key of ours')
		writeFileSync(join(folder, 'secret.key'), key)
		expect(await toldAt(folder)).toBeUndefined()
	})

	test('that is lost for good is made anew by a command, which says what is lost with it', async () => {
		const folder = copyOfDemo()
		expect(run('new-key', folder)).toMatchObject({ status: 2 })
		rmSync(join(folder, 'secret.key'))
		const renewed = run('new-key', folder)
		expect(renewed.stdout).toMatch(
			/A new key was made\. Dropped with the old one: the second factors? of \d+ (person|people)/
		)
		expect(await toldAt(folder)).toBeUndefined()
	})
})

describe('a second program', () => {
	test('is refused while the first runs, and so is putting a copy back', async () => {
		const folder = copyOfDemo()
		expect(run('backup', folder).status).toBe(0)
		const [copy = ''] = readdirSync(join(folder, 'backup')).filter((name) => name.endsWith('.db'))
		const first = await open(folder)
		const second = openHost({ folder, scripts: resolve('build/threads'), origin: 'http://127.0.0.1:1' })
		await expect(second).rejects.toThrow('is open in another program. Stop that one first.')
		const restoring = run('restore', folder, join(folder, 'backup', copy))
		expect(restoring.status).toBe(1)
		expectOneLine(restoring.stderr, 'is open in another program')
		expect((await first.read('workspace', undefined)).demo).toBe(true)
		await first.close()
		host = undefined
		expect(run('restore', folder, join(folder, 'backup', copy)).status).toBe(0)
	})

	test('a lock that was left behind stops nobody, whatever process has its number now', async () => {
		const folder = copyOfDemo()
		writeFileSync(join(folder, 'lock'), String(process.ppid))
		expect(await toldAt(folder)).toBeUndefined()
	})
})

describe('a file that is damaged', () => {
	const damages: [what: string, damage: (file: string) => void, words: string][] = [
		['cut short', (file) => truncateSync(file, Math.floor(statSync(file).size / 2)), 'was cut short'],
		['cut to nothing but a header', (file) => truncateSync(file, 20), 'was cut short'],
		[
			'another file',
			(file) => writeFileSync(file, 'no database at all, but long enough to be taken for one '.repeat(99)),
			'damaged'
		],
		['overwritten in the middle', (file) => overwrite(file), 'damaged']
	]
	const overwrite = (file: string): void => {
		const bytes = readFileSync(file)
		bytes.fill(0x5a, 4096, Math.floor(bytes.length / 2))
		writeFileSync(file, bytes)
	}

	test.each(damages)('%s: one sentence, by the server and by verify', async (_what, damage, words) => {
		const folder = copyOfDemo()
		damage(join(folder, 'workspace.db'))
		expect(await toldAt(folder)).toMatch(/(damaged|cut short).*Put the last good copy back: npm run restore/)
		const verified = run('verify', folder)
		expect(verified.status).toBe(1)
		expectOneLine(verified.stderr, words)
	})

	test('a copy that is damaged is not put back', () => {
		const folder = copyOfDemo()
		const bad = join(folder, 'bad.db')
		copyFileSync(join(folder, 'workspace.db'), bad)
		overwrite(bad)
		const restoring = run('restore', folder, bad)
		expect(restoring.status).toBe(1)
		expectOneLine(restoring.stderr, 'damaged')
		expect(run('verify', folder).status).toBe(0)
	})
})

test.each([
	['SQLITE_FULL', 'The disk is full'],
	['ENOSPC', 'The disk is full'],
	['SQLITE_READONLY_DIRECTORY', 'cannot be written to'],
	['SQLITE_CANTOPEN', 'cannot be written to'],
	['EACCES', 'cannot be written to'],
	['EROFS', 'cannot be written to'],
	['SQLITE_IOERR_FSYNC', 'does not read or write as it should'],
	['SQLITE_CORRUPT_VTAB', 'is damaged'],
	['SQLITE_NOTADB', 'is damaged']
])('%s is said in words', (code, words) => {
	const error = Object.assign(new Error('as the system says it'), { code })
	expect(sayForOperator(error, '/var/shed')).toContain(words)
	expect(sayForOperator(error, '/var/shed')).toContain('/var/shed')
})

test('what is a mistake of ours keeps its stack', () => {
	expect(sayForOperator(new TypeError('x is not a function'), '/var/shed')).toBeUndefined()
})

test('a full disk: who saves is told that nothing was saved, and what was there stays', () => {
	const file = join(mkdtempSync(join(tmpdir(), 'tin-shed-full-')), 'workspace.db')
	const columns = [{ id: 20, name: 'name', type: 'long text' as const }]
	const store = openScratch({
		file,
		now: NOW,
		tables: [{ id: 2, name: 'notes', keepers: [KEEPER], label: 20, columns }]
	})
	const pages = Number(store.db.pragma('page_count', { simple: true }))
	store.db.pragma(`max_page_count = ${pages + 2}`)
	const add = () => {
		store.db.transaction(() => {
			const cells = [{ column: 20, value: 'long '.repeat(9_000) }]
			changeRows(store, [{ kind: 'add', table: 2, cells }], { actor: { person: KEEPER }, now: NOW, through: 'grid' })
		})()
	}
	let said: unknown
	try {
		add()
	} catch (error) {
		vi.spyOn(console, 'error').mockImplementation(() => undefined)
		said = toAnswer(1, error)
		vi.restoreAllMocks()
	}
	expect(said).toMatchObject({ ok: false, code: 'busy', message: /disk is full, so this was not saved/ })
	store.db.close()
	const again = openForWriting(file)
	expect(again.prepare('SELECT count(*) FROM t2').pluck().get()).toBe(0)
	again.close()
})

describe('small writes', () => {
	test('say whether the workspace takes any: one that fails, or hangs, until one works', async () => {
		vi.useFakeTimers()
		let outcome: () => Promise<void> = () => Promise.resolve()
		const health = watchHealth(() => outcome(), 10_000)
		const next = () => vi.advanceTimersByTimeAsync(10_000)
		expect(health.isWell()).toBe(true)
		outcome = () => Promise.reject(new Error('disk full'))
		await next()
		expect(health.isWell()).toBe(false)
		outcome = () => Promise.resolve()
		await next()
		expect(health.isWell()).toBe(true)
		let cascade = () => {}
		outcome = () => new Promise((resolve) => (cascade = resolve))
		await next()
		expect(health.isWell()).toBe(true)
		await next()
		expect(health.isWell()).toBe(false)
		outcome = () => Promise.resolve()
		cascade()
		await next()
		expect(health.isWell()).toBe(true)
		health.close()
		vi.useRealTimers()
	})
})
