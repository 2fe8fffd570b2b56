import { describe, expect, test } from 'vitest'
import { addWorkdays } from './calendar.ts'
import { addWorkingDays, addWorkingMinutes, isWorkingDay, USUAL_WEEK, type WorkingTime } from './working-time.ts'

const wall = (text: string) => Date.parse(`${text}:00Z`)
const usual: WorkingTime = { week: USUAL_WEEK, from: 540, until: 1020, holidays: new Set(['2026-12-25', '2026-12-28']) }
/** Sunday to Thursday, from early on. */
const early: WorkingTime = { week: [6, 0, 1, 2, 3], from: 360, until: 840, holidays: new Set() }

describe('working days', () => {
	test.each([
		['2026-12-24', 1, usual, '2026-12-29'],
		['2026-12-26', 1, usual, '2026-12-29'],
		['2026-12-24', 0, usual, '2026-12-24'],
		['2026-12-24', 1, early, '2026-12-27'],
		['2026-12-03', 5, early, '2026-12-10']
	] as const)('from %s, %d on', (date, days, working, to) => expect(addWorkingDays(date, days, working)).toBe(to))

	test('are those of the formulas in a usual week', () => {
		for (let days = 1; days < 60; days++)
			for (const date of ['2026-12-18', '2026-12-24', '2026-12-25', '2026-12-26'])
				expect(addWorkingDays(date, days, usual)).toBe(addWorkdays(date, days, usual.holidays))
	})

	test('where nobody ever works there is none', () => {
		expect(addWorkingDays('2026-12-24', 1, { ...usual, week: [] })).toBeUndefined()
		expect(addWorkingMinutes(wall('2026-12-24T10:00'), 1, { ...usual, week: [] })).toBeUndefined()
		expect(addWorkingDays('9999-12-30', 9, usual)).toBeUndefined()
	})
})

describe('working hours', () => {
	test.each([
		['within a day', '2026-12-21T10:00', 120, '2026-12-21T12:00'],
		['to the end of it', '2026-12-21T10:00', 420, '2026-12-21T17:00'],
		['into the next', '2026-12-21T16:00', 120, '2026-12-22T10:00'],
		['from before work', '2026-12-21T06:30', 60, '2026-12-21T10:00'],
		['from after work', '2026-12-21T19:00', 60, '2026-12-22T10:00'],
		['over a weekend and holidays', '2026-12-24T16:30', 60, '2026-12-29T09:30'],
		['from a Sunday', '2026-12-20T12:00', 30, '2026-12-21T09:30'],
		['of many days', '2026-12-21T09:00', 16 * 60, '2026-12-22T17:00']
	])('%s', (_what, from, minutes, to) => expect(addWorkingMinutes(wall(from), minutes, usual)).toBe(wall(to)))

	test('are as many as a minute-by-minute count finds', () => {
		let seed = 7
		const random = (bound: number) => (seed = (seed * 48_271) % 2_147_483_647) % bound
		for (const working of [usual, early, { ...usual, from: 1_200, until: 1_440 }]) {
			for (let i = 0; i < 40; i++) {
				const from = wall('2026-12-18T00:00') + random(14 * 1_440) * 60_000
				const minutes = 1 + random(3_000)
				let at = from
				for (let left = minutes; left > 0; at += 60_000) {
					const date = new Date(at).toISOString().slice(0, 10)
					const ofDay = Math.floor((at % 86_400_000) / 60_000)
					if (isWorkingDay(date, working) && ofDay >= working.from && ofDay < working.until) left--
				}
				expect({ from, minutes, at: addWorkingMinutes(from, minutes, working) }).toEqual({ from, minutes, at })
			}
		}
	})
})
