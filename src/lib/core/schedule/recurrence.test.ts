import fc from 'fast-check'
import { RRule, Weekday, type Frequency as OracleFrequency } from 'rrule'
import { describe, expect, test } from 'vitest'
import { nextOccurrence, occurrences } from './occurrences.ts'
import { parseRecurrence, sayRecurrence } from './recurrence-words.ts'
import { EVERY_DAY, FREQUENCIES, parseRrule, printRrule, type Recurrence } from './recurrence.ts'

const ANCHOR = { date: '2026-11-02', minutes: 12 * 60, zone: 'UTC' }

function ruleOf(text: string): Recurrence {
	const read = parseRecurrence(text)
	if ('message' in read) throw new Error(read.message)
	return read.rule
}

function days(text: string, many: number, more: object = {}): string[] {
	const found: string[] = []
	for (const at of occurrences(ruleOf(text), { ...ANCHOR, ...more })) {
		found.push(new Date(at).toISOString().slice(0, 10))
		if (found.length === many) break
	}
	return found
}

describe('words for what comes again', () => {
	test.each([
		['every day', 'every day', 'FREQ=DAILY'],
		['Every 3 days', 'every 3 days', 'FREQ=DAILY;INTERVAL=3'],
		['every Monday', 'every Monday', 'FREQ=WEEKLY;BYDAY=MO'],
		['each tuesday, thursday and friday', 'every Tuesday, Thursday and Friday', 'FREQ=WEEKLY;BYDAY=TU,TH,FR'],
		['every second week on Tuesday', 'every 2 weeks on Tuesday', 'FREQ=WEEKLY;INTERVAL=2;BYDAY=TU'],
		['on the 15th of each month', '15th of each month', 'FREQ=MONTHLY;BYMONTHDAY=15'],
		['1 and 22 of each month', '1st and 22nd of each month', 'FREQ=MONTHLY;BYMONTHDAY=1,22'],
		['last day of each month', 'last day of each month', 'FREQ=MONTHLY;BYMONTHDAY=-1'],
		['the last Friday of each month', 'last Friday of each month', 'FREQ=MONTHLY;BYDAY=-1FR'],
		['15th of every 3 months', '15th of every 3 months', 'FREQ=MONTHLY;INTERVAL=3;BYMONTHDAY=15'],
		['each year on 28 February', 'each year on 28 February', 'FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=28'],
		['FREQ=WEEKLY;BYDAY=MO', 'every Monday', 'FREQ=WEEKLY;BYDAY=MO'],
		// Words there are none for.
		[
			'FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13',
			'FREQ=MONTHLY;BYMONTHDAY=13;BYDAY=FR',
			'FREQ=MONTHLY;BYMONTHDAY=13;BYDAY=FR'
		],
		['FREQ=DAILY;COUNT=3', 'FREQ=DAILY;COUNT=3', 'FREQ=DAILY;COUNT=3']
	])('%s is %s', (text, said, rrule) => {
		expect(sayRecurrence(ruleOf(text))).toBe(said)
		expect(printRrule(ruleOf(text))).toBe(rrule)
		expect(ruleOf(said)).toEqual(ruleOf(text))
	})

	test.each([
		['every working day', 'FREQ=DAILY;BYDAY=MO,TU,WE,TH,FR'],
		['last working day of each month', 'FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1'],
		['second working day of each month', 'FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=2']
	])('%s is said so, and for others is %s', (text, rrule) => {
		expect(sayRecurrence(ruleOf(text))).toBe(text)
		expect(printRrule(ruleOf(text))).toBe(rrule)
	})

	test.each([
		['', 'says no days'],
		['sometimes', 'Say it like "every day"'],
		['every Moonday', 'says no days'],
		['32nd of each month', 'says no days'],
		['each year on 3 Smarch', 'says no days'],
		['every 0 days', 'says no days'],
		['FREQ=HOURLY', '"FREQ=HOURLY" cannot be read'],
		['FREQ=DAILY;FREQ=DAILY', 'FREQ stands twice'],
		['FREQ=DAILY;BYDAY=1MO', 'FREQ=MONTHLY'],
		['FREQ=WEEKLY;BYMONTHDAY=3', 'FREQ=MONTHLY'],
		['FREQ=DAILY;COUNT=2;UNTIL=20260101', 'not by both'],
		['FREQ=DAILY;INTERVAL=0', 'cannot be read'],
		['FREQ=DAILY;BYHOUR=24', 'cannot be read'],
		['FREQ=DAILY;UNTIL=20269901', 'cannot be read']
	])('"%s" is refused: %s', (text, says) => {
		const read = parseRecurrence(text)
		expect('message' in read && read.message).toContain(says)
	})
})

describe('working days', () => {
	// England's bank holidays of that month (gov.uk): 25 December, and 28 December for Boxing Day on a Saturday.
	const holidays = new Set(['2026-12-25', '2026-12-28'])

	test('leave out weekends and holidays', () => {
		expect(days('every working day', 4, { date: '2026-12-23', holidays })).toEqual(
			['2026-12-23', '2026-12-24', '2026-12-29', '2026-12-30'] // prettier-ignore
		)
	})

	test('the last of a month is the last that somebody works on', () => {
		expect(days('last working day of each month', 3)).toEqual(['2026-11-30', '2026-12-31', '2027-01-29'])
		const newYears = new Set(['2026-12-31', '2026-12-30'])
		expect(days('last working day of each month', 2, { holidays: newYears })).toEqual(['2026-11-30', '2026-12-29'])
	})
})

test('Monday noon is noon there on both sides of a change of clocks', () => {
	const rule = ruleOf('every Monday')
	const zone = 'Europe/London'
	const at = (after: string) =>
		new Date(nextOccurrence(rule, { date: '2026-01-05', minutes: 720, zone }, Date.parse(after)) ?? 0).toISOString()
	expect(at('2026-03-23T12:00:00Z')).toBe('2026-03-30T11:00:00.000Z')
	expect(at('2026-10-19T11:00:00Z')).toBe('2026-10-26T12:00:00.000Z')
	// Not twice at the instant itself.
	expect(at('2026-10-26T12:00:00Z')).toBe('2026-11-02T12:00:00.000Z')
})

test('a rule that never comes ends', () => {
	const read = parseRrule('FREQ=MONTHLY;BYMONTH=2;BYMONTHDAY=30')
	expect('rule' in read && nextOccurrence(read.rule, ANCHOR, 0)).toBeUndefined()
	expect(nextOccurrence({ ...EVERY_DAY, count: 2 }, ANCHOR, Date.parse('2026-11-03T12:00Z'))).toBeUndefined()
	expect(nextOccurrence(EVERY_DAY, { ...ANCHOR, date: '9999-12-30' }, Date.parse('9999-12-31T12:00Z'))).toBeUndefined()
})

describe('against the library rrule', () => {
	const numbers = (from: number, to: number) =>
		fc.uniqueArray(
			fc.integer({ min: from, max: to }).filter((each) => each !== 0),
			{ maxLength: 3 }
		)
	const rules = fc
		.record({
			frequency: fc.constantFrom(...FREQUENCIES),
			interval: fc.integer({ min: 1, max: 4 }),
			months: numbers(1, 12),
			monthDays: numbers(-5, 31),
			days: fc.uniqueArray(fc.record({ nth: fc.integer({ min: -2, max: 5 }), day: fc.integer({ min: 0, max: 6 }) }), {
				maxLength: 3,
				selector: ({ nth, day }) => `${nth} ${day}`
			}),
			// The library takes the first of a period that has no second to last, and one twice that is both (2.8.1).
			positions: fc.uniqueArray(fc.constantFrom(1, 2, 3, -1), { maxLength: 1 }),
			weekStart: fc.integer({ min: 0, max: 6 })
		})
		.map((rule): Recurrence => {
			const isShort = rule.frequency === 'daily' || rule.frequency === 'weekly'
			// Mixed, the library takes only what is both; RFC 5545 takes either.
			const isNth = rule.days[0]?.nth !== 0 && !isShort
			const days = isNth ? rule.days.filter(({ nth }) => nth !== 0) : rule.days.map(({ day }) => ({ nth: 0, day })).filter(({ day }, i, all) => all.findIndex((each) => each.day === day) === i)
			const monthDays = rule.frequency === 'weekly' ? [] : rule.monthDays
			// RFC 5545: a place among days is asked for beside another part.
			const positions = days.length + monthDays.length > 0 && !isShort ? rule.positions : []
			return { ...EVERY_DAY, ...rule, days, monthDays, positions: positions.toSorted((a, b) => a - b) }
		})
		// Which days a year gives where months and days of them are mixed, or days stand alone in it, libraries differ about.
		.filter(({ frequency, days, monthDays, months }) => frequency !== 'yearly' || days.length + monthDays.length === 0 || months.length > 0) // prettier-ignore

	const LAST = Date.UTC(2035, 0, 1)
	const MOST = 12

	test('the first dozen times are the same, and each is the next after the one before', () => {
		fc.assert(
			fc.property(rules, fc.integer({ min: 0, max: 1500 }), (rule, later) => {
				const began = Date.UTC(2024, 0, 1 + later, 12)
				const anchor = { date: new Date(began).toISOString().slice(0, 10), minutes: 720, zone: 'UTC' }
				const wanted = oracle(rule, began)
				const got: number[] = []
				for (const at of occurrences(rule, anchor)) {
					if (at > LAST || got.length === MOST) break
					got.push(at)
				}
				expect(got).toEqual(wanted)
				for (const [i, at] of wanted.entries())
					if (i > 0) expect(nextOccurrence(rule, anchor, wanted[i - 1] ?? 0)).toBe(at)
				const again = parseRrule(printRrule(rule))
				expect('rule' in again && printRrule(again.rule)).toBe(printRrule(rule))
			}),
			{ numRuns: 60 }
		)
	})

	function oracle(rule: Recurrence, began: number): number[] {
		const frequencies: Record<Recurrence['frequency'], OracleFrequency> = {
			...{ daily: RRule.DAILY, weekly: RRule.WEEKLY, monthly: RRule.MONTHLY, yearly: RRule.YEARLY }
		}
		const set = new RRule({
			freq: frequencies[rule.frequency],
			interval: rule.interval,
			dtstart: new Date(began),
			wkst: rule.weekStart,
			...(rule.months.length > 0 ? { bymonth: [...rule.months] } : {}),
			...(rule.monthDays.length > 0 ? { bymonthday: [...rule.monthDays] } : {}),
			...(rule.days.length > 0 ? { byweekday: rule.days.map(({ day, nth }) => (nth === 0 ? new Weekday(day) : new Weekday(day, nth))) } : {}), // prettier-ignore
			...(rule.positions.length > 0 ? { bysetpos: [...rule.positions] } : {})
		})
		return set.between(new Date(began), new Date(LAST), true, (_at, i) => i < MOST).map((at) => at.getTime())
	}
})
