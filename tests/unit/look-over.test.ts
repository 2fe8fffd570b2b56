/** What a builder is told before a release: of presses that would be refused, and what the rows that they see say. */
import { beforeEach, describe, expect, test } from 'vitest'
import { appSchema, type AppDocument } from '$lib/core/app/document.ts'
import { addAppFrom } from '$lib/server/apps/apps.ts'
import { lookOver } from '$lib/server/apps/look-over.ts'
import type { Store } from '$lib/server/store/store.ts'
import { accessLine } from '../support/access-line.ts'
import { KEEPER, openScratch, PEOPLE_TABLE } from '../support/scratch-store.ts'

const NOW = Date.parse('2026-11-29T12:00:00Z')
const [JOBS, WHAT, WHO, DONE] = [3, 30, 31, 32]
const [CREW, CHIEFS, OFFICE] = [10, 11, 12]
const BO = 3

let store: Store

beforeEach(() => {
	store = openScratch({
		now: NOW,
		roles: [
			{ id: CREW, name: 'Crew', includes: [] },
			{ id: CHIEFS, name: 'Chiefs', includes: [CREW] },
			{ id: OFFICE, name: 'Office', includes: [] }
		],
		lines: [
			accessLine({ id: 'a', table: JOBS, role: CREW, verbs: ['see'] }),
			accessLine({ id: 'b', table: JOBS, role: CHIEFS, verbs: ['change'], columns: { kind: 'only', columns: [DONE] } }),
			accessLine({ id: 'c', table: JOBS, role: OFFICE, verbs: ['see'], where: 'what = "Job 1"' })
		],
		tables: [
			{
				...{ id: JOBS, name: 'jobs', keepers: [KEEPER], label: WHAT },
				columns: [
					{ id: WHAT, name: 'what', type: 'text' },
					{ id: WHO, name: 'who', type: 'reference', to: PEOPLE_TABLE, reverseName: 'jobs' },
					{ id: DONE, name: 'done', type: 'yes/no' }
				]
			}
		]
	})
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k) VALUES (3, 0, 0, 'Bo', 'bo');
		INSERT INTO role_held (person, role) VALUES (${BO}, ${OFFICE})`)
})

function addJobs(count: number, isNamed: (n: number) => boolean): void {
	const add = store.db.prepare(`INSERT INTO t3 (n, made_at, changed_at, c30, c30k, c31) VALUES (?, 0, 0, ?, ?, ?)`)
	for (let n = 1; n <= count; n++) add.run(n, `Job ${n}`, `job ${n}`, isNamed(n) ? BO : null)
}

const list = (parts: object = {}) => ({
	...{ id: 'l', kind: 'list', table: JOBS, where: '', sort: [], columns: [WHAT], opens: null },
	...parts
})

function found(lines: readonly object[], parts: Partial<AppDocument> = {}, person = KEEPER): string[] {
	const none = { about: '', colour: 'sea', routines: [], signoffs: [] }
	const document = appSchema.parse({ format: 3, name: 'Jobs', screens: [{ id: 's', title: 'S', lines }], ...none, ...parts }) // prettier-ignore
	const app = addAppFrom(store, { document, actor: { person: KEEPER }, now: NOW })
	return lookOver(store, { app, actor: { person }, now: NOW }).map(({ place, message }) => `${place}: ${message}`)
}

const routine = (steps: object[], start: object = { kind: 'button', table: JOBS }) =>
	({ routines: [{ id: 'r', name: 'Done', start, steps }] }) as unknown as Partial<AppDocument>
const press = (who: number[] = []) => ({ id: 'b', kind: 'button', label: 'Done', does: { kind: 'run', routine: 'r' }, who }) // prettier-ignore
const sets = routine([{ id: 't', kind: 'set', column: DONE, formula: 'TRUE()' }])

describe('a button whose routine writes what those who see it may not', () => {
	test('names the roles; one that is included counts', () => {
		const [says] = found([list(), press()], sets).filter((each) => each.includes('refused'))
		expect(says).toMatch(/^S, line 2: Crew and Office see it and may not write done of jobs/)
	})

	test.each([
		['is for those alone who may', [CHIEFS], 0],
		['is for one who may not', [OFFICE], 1]
	])('says so unless it %s', (_what, who, count) => {
		expect(found([list(), press(who)], sets).filter((each) => each.includes('refused'))).toHaveLength(count)
	})
})

describe('a long list in which nothing can be looked for', () => {
	test.each([
		['is said', {}, 1001, 1],
		['is not long', {}, 1000, 0],
		['lets words be looked for', { finds: [WHAT] }, 1001, 0],
		['shows so many at most', { limit: 20 }, 1001, 0],
		['is narrowed down by its condition', { where: 'what = "Job 7"' }, 1001, 0]
	])('%s', (_what, parts, rows, count) => {
		addJobs(rows, () => true)
		expect(found([list(parts)]).filter((each) => each.includes('more than 1,000 rows'))).toHaveLength(count)
	})
})

describe('rows that name nobody', () => {
	const send = [{ id: 't', kind: 'send', to: 'who', subject: 'So', body: 'so' }]
	const signoff = { signoffs: [{ id: 'o', name: 'Yes', table: JOBS, where: 'what <> "Job 2"', decider: 'who', columns: [WHAT], children: [] }] } as unknown as Partial<AppDocument> // prettier-ignore

	test('of a set that goes by what the routine holds are not counted beforehand', () => {
		addJobs(5, () => true)
		const each = { id: 'e', kind: 'each', table: JOBS, where: 'what = here.code', lines: send }
		const take = { id: 'k', kind: 'take', what: 'a text', holds: 'code' }
		expect(found([list()], routine([take, each], { kind: 'request', from: 'Chandlery' })).join()).not.toContain('names nobody') // prettier-ignore
	})

	test('get no message, and that is said with how many they are', () => {
		addJobs(5, (n) => n > 2)
		expect(found([list()], routine(send))).toContain(
			'Routine Done, line 1: Of the 5 rows that you see, 2 name nobody in "who": no message goes out for them.'
		)
	})

	test('have nobody who decides; only those count that need it', () => {
		addJobs(5, (n) => n > 2)
		expect(found([list()], signoff)).toContain(
			'Sign-off Yes: Of the 4 rows that you see and that need it, 1 has nobody who decides: "who" is blank there. Such a request waits for ever.'
		)
	})

	test('are counted no further than their builder sees', () => {
		addJobs(5, () => false)
		expect(found([list()], routine(send), BO)).toContain(
			'Routine Done, line 1: Of the 1 row that you see, 1 names nobody in "who": no message goes out for it.'
		)
	})

	test('are none: nothing is said', () => {
		addJobs(5, () => true)
		expect(found([list()], { ...routine(send), ...signoff }).filter((each) => each.includes('nobody'))).toEqual([])
	})
})
