/** Being told: what stands on one's page, and when mail leaves by one's own choice. */
import { beforeEach, describe, expect, test } from 'vitest'
import { claimPosting, queueState, runInsideJob } from '$lib/server/jobs/run-jobs.ts'
import { addMessage } from '$lib/server/queue/messages.ts'
import { clearNotices, countUnread, listNotices, openNotice, readAllNotices } from '$lib/server/queue/notices.ts'
import { holdOutgoing, readOutgoing } from '$lib/server/queue/outgoing.ts'
import { readTelling, setTelling } from '$lib/server/queue/telling.ts'
import { setZone } from '$lib/server/credentials/own-account.ts'
import { STEWARD } from '$lib/server/rights/system-roles.ts'
import type { Store } from '$lib/server/store/store.ts'
import { DAY, HOUR, IMKE, NOW, openStock, WIM } from '../support/quay-stock.ts'

let store: Store
let told = 0
beforeEach(() => {
	store = openStock()
})

const tell = (person = WIM, now = NOW, more: object = {}) =>
	addMessage(store, { cause: `t ${told++}`, person, subject: `No. ${told}`, body: 'b', link: '/waiting', now, ...more })
const choose = (parts: object, person = WIM) =>
	setTelling(store, { mail: 'at once', quietFrom: '', quietUntil: '', ...parts, person, now: NOW } as never)
/** When what waits is done, by task. */
const jobs = () =>
	store
		.prepare<{ task: string; at: number }>(`SELECT task, run_at AS at FROM job WHERE done_at IS NULL ORDER BY id`)
		.all()
		.map(({ task, at }) => `${task} ${new Date(at).toISOString().slice(0, 16)}`)
const newest = () => listNotices(store, { person: WIM }).notices[0]?.id ?? ''
const work = (now: number) => {
	while (runInsideJob(store, { worker: 'w', now }));
}

describe('notices', () => {
	test('stand on the page of whom they are for, the newest first, until they are read', () => {
		tell(WIM, NOW - DAY)
		tell(WIM)
		tell(IMKE)
		const { notices, unread } = listNotices(store, { person: WIM })
		expect(notices.map(({ at, isRead, hasLink }) => [at, isRead, hasLink])).toEqual([[NOW, false, true], [NOW - DAY, false, true]]) // prettier-ignore
		expect(unread).toBe(2)
		expect(openNotice(store, { id: notices[0]?.id ?? '', person: WIM, now: NOW })).toBe('/waiting')
		expect([WIM, IMKE].map((person) => countUnread(store, person))).toEqual([1, 1])
		// What comes while the page is read is not read with it.
		tell(WIM)
		readAllNotices(store, { upto: notices[0]?.id ?? '', person: WIM, now: NOW })
		expect([WIM, IMKE].map((person) => countUnread(store, person))).toEqual([1, 1])
		readAllNotices(store, { upto: newest(), person: WIM, now: NOW })
		expect([WIM, IMKE].map((person) => countUnread(store, person))).toEqual([0, 1])
	})

	test('that were read are put away, what is new stays, and nothing is told a second time', () => {
		tell(WIM)
		readAllNotices(store, { upto: newest(), person: WIM, now: NOW })
		tell(WIM)
		const upto = newest()
		clearNotices(store, { upto, person: IMKE })
		expect(listNotices(store, { person: WIM }).notices).toHaveLength(2)
		clearNotices(store, { upto, person: WIM })
		clearNotices(store, { upto: 'x', person: WIM })
		expect(listNotices(store, { person: WIM }).notices.map(({ isRead }) => isRead)).toEqual([false])
		// The cause of the one that was put away.
		addMessage(store, { cause: `t ${told - 2}`, person: WIM, subject: 'again', body: '', link: undefined, now: NOW })
		expect(listNotices(store, { person: WIM }).notices).toHaveLength(1)
	})

	test('of somebody else are not there, by whatever id', () => {
		tell(WIM)
		const id = listNotices(store, { person: WIM }).notices[0]?.id ?? ''
		for (const asked of [id, '1', 'x'])
			expect(() => openNotice(store, { id: asked, person: IMKE, now: NOW })).toThrow('not there')
		expect(countUnread(store, WIM)).toBe(1)
	})

	test('hold nothing by which somebody comes in', () => {
		tell(WIM, NOW, { kind: 'account', link: '/join/secret' })
		tell(0, NOW, { to: { name: '', email: 'new@varrow.example' } })
		expect(listNotices(store, { person: WIM }).notices).toEqual([])
		expect(listNotices(store, { person: 0 }).notices).toEqual([])
	})
})

describe('mail leaves', () => {
	test('at once where nothing was chosen', () => {
		expect(readTelling(store, { person: WIM })).toEqual({ mail: 'at once', quietFrom: '', quietUntil: '' })
		tell()
		expect(jobs()).toEqual(['post 2026-11-29T12:00'])
	})

	test.each([
		// Over midnight, on a clock of their own: Sydney is eleven hours ahead in November.
		['22:00', '07:00', '2026-11-29T12:00', '2026-11-29T20:00'],
		['22:00', '07:00', '2026-11-29T10:59', '2026-11-29T10:59'],
		['22:00', '07:00', '2026-11-29T19:59', '2026-11-29T20:00'],
		['22:00', '07:00', '2026-11-29T20:00', '2026-11-29T20:00'],
		// Within a day.
		['09:00', '17:00', '2026-11-29T23:30', '2026-11-30T06:00'],
		['09:00', '17:00', '2026-11-29T12:00', '2026-11-29T12:00']
	])('between %s and %s not: what comes at %s leaves at %s', (quietFrom, quietUntil, at, leaves) => {
		setZone(store, { person: WIM, zone: 'Australia/Sydney', now: NOW })
		choose({ quietFrom, quietUntil })
		tell(WIM, Date.parse(`${at}Z`))
		expect(jobs()).toEqual([`post ${leaves}`])
	})

	test('at once a hundred times a day, and what comes besides in one mail the next morning', () => {
		for (let i = 0; i < 103; i++) tell(WIM, NOW + i)
		tell(IMKE)
		expect(countUnread(store, WIM)).toBe(103)
		const tasks = jobs().map((job) => job.slice(0, 6))
		expect(tasks.filter((task) => task === 'post 2')).toHaveLength(101)
		expect(jobs().filter((job) => job.startsWith('digest'))).toEqual(['digest 2026-11-30T07:00'])
		work(NOW + DAY)
		const { subject } =
			store.prepare<{ subject: string }>(`SELECT subject FROM message WHERE kind = 'digest'`).get() ?? {}
		expect(subject).toBe('3 notices')
		// A day later it begins anew.
		const before = jobs().length
		tell(WIM, NOW + DAY + HOUR)
		expect(jobs()).toHaveLength(before + 1)
		expect(jobs().at(-1)).toMatch(/^post/)
	})

	test('once a day with all that was not read by then, in one message, or none where all was', () => {
		choose({ mail: 'once a day' })
		for (const hours of [0, 1, 2]) tell(WIM, NOW + hours * HOUR)
		expect(jobs()).toEqual(['digest 2026-11-30T07:00'])
		openNotice(store, {
			id: listNotices(store, { person: WIM }).notices[0]?.id ?? '',
			person: WIM,
			now: NOW + 3 * HOUR
		})
		work(NOW + 18 * HOUR)
		expect(jobs()).toEqual(['digest 2026-11-30T07:00'])
		work(NOW + 19 * HOUR)
		expect(jobs()).toEqual(['post 2026-11-30T07:00'])
		const [mail] = store.prepare(`SELECT subject, body, link FROM message WHERE kind = 'digest'`).all()
		expect(mail).toEqual({ subject: '2 notices', body: `- No. ${told - 2}\n- No. ${told - 1}`, link: '/notices' })
		expect(countUnread(store, WIM)).toBe(2)
		tell(WIM, NOW + 20 * HOUR)
		readAllNotices(store, { upto: newest(), person: WIM, now: NOW + 20 * HOUR })
		work(NOW + 2 * DAY)
		expect(store.pluck(`SELECT count(*) FROM message WHERE kind = 'digest'`)).toBe(1)
	})

	test('once a day after quiet hours that last longer, and not at all where never was chosen meanwhile', () => {
		choose({ mail: 'once a day', quietFrom: '22:00', quietUntil: '09:30' })
		tell()
		expect(jobs()).toEqual(['digest 2026-11-30T09:30'])
		choose({ mail: 'never' })
		work(NOW + DAY)
		expect(jobs()).toEqual([])
		expect(countUnread(store, WIM)).toBe(1)
	})

	test('never, but for what an account needs', () => {
		choose({ mail: 'never' })
		tell()
		expect(jobs()).toEqual([])
		tell(WIM, NOW, { kind: 'account' })
		expect(jobs()).toEqual(['post 2026-11-29T12:00'])
		expect(countUnread(store, WIM)).toBe(1)
	})
})

test('held back by a steward, nothing leaves and nothing is lost; nobody else may', () => {
	store.db.exec(`INSERT INTO role_held (person, role) VALUES (${IMKE}, ${STEWARD})`)
	const hold = (on: boolean, person = IMKE) => holdOutgoing(store, { hold: on, actor: { person }, now: NOW })
	expect(() => hold(true, WIM)).toThrow()
	hold(true)
	tell()
	expect(claimPosting(store, { worker: 'w', now: NOW })).toBeNull()
	expect(readOutgoing(store)).toEqual({ heldSince: NOW, waiting: 1 })
	expect(countUnread(store, WIM)).toBe(1)
	// Nor does the queue wake again and again for what may not leave.
	expect(queueState(store).nextAt).toBeNull()
	expect(() => hold(false, WIM)).toThrow()
	hold(false)
	expect(queueState(store).nextAt).toBe(NOW)
	expect(claimPosting(store, { worker: 'w', now: NOW })?.message.subject).toBe(`No. ${told}`)
})

test.each([
	[{ mail: 'by boat' }, 'Choose how'],
	[{ quietFrom: '22:00' }, 'a beginning and an end'],
	[{ quietFrom: '22:00', quietUntil: '25:00' }, 'no time of day'],
	[{ quietFrom: '22:00', quietUntil: '22:00' }, 'are none']
])('%j cannot be chosen', (parts, says) => {
	expect(() => choose(parts)).toThrow(says)
	expect(readTelling(store, { person: WIM }).mail).toBe('at once')
})
