/** A workspace of the first format opened today; copies made and put back; a newer or altered one refused. */
import Database from 'better-sqlite3'
import { spawnSync } from 'node:child_process'
import { copyFileSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { randomBytes } from 'node:crypto'
import { describe, expect, test } from 'vitest'
import { parseApp } from '$lib/core/app/document.ts'
import { parseWorkspace } from '$lib/core/workspace/document.ts'
import { cellKey } from '$lib/core/query/wire.ts'
import { openScreen } from '$lib/server/apps/open-screen.ts'
import { MIGRATIONS, schemaNumber } from '$lib/server/store/migrate.ts'
import { openForWriting } from '$lib/server/store/open.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import { openWriter } from '$lib/server/threads/open-writer.ts'
import { makeFirstWorkspace } from '../support/first-workspace.ts'

const NOW = Date.parse('2026-11-23T12:00:00Z')
const folder = () => mkdtempSync(join(tmpdir(), 'tin-shed-upkeep-'))

function run(command: string, data: string, ...args: string[]) {
	const env = { ...process.env, TIN_SHED_DATA: data }
	return spawnSync(process.execPath, [`build/threads/${command}.js`, ...args], { encoding: 'utf8', env })
}

function openFirst(data: string) {
	const file = join(data, 'workspace.db')
	makeFirstWorkspace(file)
	return openWriter(file, randomBytes(16).toString('hex'))
}

describe('a workspace of the first schema and format', () => {
	test('is brought up to date, and works as before', () => {
		const store = openFirst(folder())
		expect(schemaNumber(store.db)).toBe(MIGRATIONS.length)
		expect(MIGRATIONS.length).toBeGreaterThanOrEqual(2)
		expect(store.workspace().timeZone).toBe('UTC')
		const screen = openScreen(store, { app: 1, draft: false, actor: { person: 2 }, now: NOW }).screen
		const list = screen?.lines.find((line) => line.kind === 'list')
		// Sorted by depth, as format 1 said with a bare number; the shallow one is kept back by the line.
		expect(list?.kind === 'list' && list.page.rows.map((row) => row.cells[cellKey(100)])).toEqual(['GS-101', 'VQ-001'])
		const added = changeRows(store, [{ kind: 'add', table: 100, cells: [{ column: 100, value: 'OS-001' }] }], {
			actor: { person: 1 },
			now: NOW,
			through: 'grid'
		})
		expect(added[0]?.rev).toBe(1)
		store.db.close()
	})

	test('a newer one is refused, with both numbers', () => {
		const data = folder()
		openFirst(data).db.close()
		const db = new Database(join(data, 'workspace.db'))
		db.pragma(`user_version = ${MIGRATIONS.length + 5}`)
		db.close()
		expect(() => openForWriting(join(data, 'workspace.db'))).toThrow(
			`its schema is number ${MIGRATIONS.length + 5}, this program knows up to ${MIGRATIONS.length}`
		)
	})

	test.each([
		['workspace', () => parseWorkspace(JSON.stringify({ format: 99 }))],
		['app', () => parseApp(JSON.stringify({ format: 99 }))]
	])('a %s document of a newer format is refused, with both numbers', (_kind, parse) => {
		expect(parse).toThrow(/format "99", this program knows up to \d+/)
	})
})

describe('copies', () => {
	test('a copy is made while the workspace is open, and put back', () => {
		const data = folder()
		const store = openFirst(data)
		writeFileSync(join(data, 'secret.key'), randomBytes(32).toString('hex'))
		changeRows(store, [{ kind: 'add', table: 100, cells: [{ column: 100, value: 'KEPT-1' }] }], {
			actor: { person: 1 },
			now: NOW,
			through: 'grid'
		})
		mkdirSync(join(data, 'files', 'ab'), { recursive: true })
		writeFileSync(join(data, 'files', 'ab', 'abc'), 'a photo')
		expect(run('backup', data).status).toBe(0)
		rmSync(join(data, 'files'), { recursive: true })
		changeRows(store, [{ kind: 'add', table: 100, cells: [{ column: 100, value: 'LATER-1' }] }], {
			actor: { person: 1 },
			now: NOW,
			through: 'grid'
		})
		store.db.close()
		const copy = readdirSync(join(data, 'backup')).find((name) => name.endsWith('.db')) ?? ''
		const restored = run('restore', data, join(data, 'backup', copy))
		expect(restored.stderr).toBe('')
		expect(restored.status).toBe(0)
		const db = new Database(join(data, 'workspace.db'), { readonly: true })
		expect(db.prepare(`SELECT c100 FROM t100 WHERE c100 LIKE '%-1'`).pluck().all()).toEqual(['KEPT-1'])
		db.close()
		expect(readFileSync(join(data, 'files', 'ab', 'abc'), 'utf8')).toBe('a photo')
		// What was there before is kept beside it.
		expect(readdirSync(data).some((name) => name.startsWith('workspace.db.before-restore'))).toBe(true)
	})

	test.each([
		[
			'a history that was altered',
			(db: Database.Database) => void db.exec(`UPDATE history SET kind = 'nothing' WHERE seq = 1`),
			'does not fit its seal'
		],
		[
			'a history that was cut short',
			(db: Database.Database) => void db.exec('DELETE FROM history WHERE seq = (SELECT max(seq) FROM history)'),
			'does not end as it did'
		],
		['a newer schema', (db: Database.Database) => void db.pragma('user_version = 99'), 'its schema is number 99']
	])('%s is found, and not put back', (_what, alter, said) => {
		const data = folder()
		const store = openFirst(data)
		writeFileSync(join(data, 'secret.key'), randomBytes(32).toString('hex'))
		for (const code of ['A', 'B']) {
			changeRows(store, [{ kind: 'add', table: 100, cells: [{ column: 100, value: code }] }], {
				actor: { person: 1 },
				now: NOW,
				through: 'grid'
			})
		}
		store.db.close()
		run('backup', data)
		const copy = join(data, 'backup', readdirSync(join(data, 'backup')).find((name) => name.endsWith('.db')) ?? '')
		const db = new Database(copy)
		alter(db)
		db.close()
		const refused = run('restore', data, copy)
		expect(refused.status).toBe(1)
		expect(refused.stderr).toContain(said)
	})

	test('a file that is no workspace is refused', () => {
		const data = folder()
		const other = join(data, 'other.db')
		copyFileSync('package.json', other)
		expect(run('restore', data, other).stderr).toContain('is no copy of a workspace')
	})
})
