import * as reference from '@formulajs/formulajs'
import { expect, test } from 'vitest'
import { call } from '$lib/core/formula/functions/define.ts'
import { FUNCTIONS } from '$lib/core/formula/functions/table.ts'
import { isErrorValue, type Given } from '$lib/core/model/formula.ts'
import { addDays } from '$lib/core/schedule/calendar.ts'
import { randomFrom, type Random } from '../../demo/random.ts'

/**
 * Our functions beside a general-purpose reference library (@formulajs/formulajs 4.6.1), on random arguments.
 *
 * Left out is what the library is known to have wrong: MOD by a negative divisor, COUNTIF by case, DATEVALUE of a day that
 * does not exist, NETWORKDAYS backwards, YEARFRAC by the calendar, MID of no characters, and the
 * outermost quartiles.
 */
const SEED = 20261123
const TRIES = 60

type Make = (random: Random) => Given

const word: Make = (random) =>
	random.pick(['Varrow Quay', 'ness  hythe', ' Gull Stair ', 'orrin', 'NH-014', 'aabab', ''])
const whole =
	(low: number, high: number): Make =>
	(random) =>
		low + random.below(high - low + 1)
const amount: Make = (random) => (random.below(200_000) - 100_000) / 100
const rate: Make = (random) => (1 + random.below(200)) / 1000
const date: Make = (random) => addDays('1990-01-01', random.below(20_000)) ?? ''
const amounts: Make = (random) => Array.from({ length: 2 + random.below(8) }, () => amount(random) as number)

const CASES: [name: string, ...makes: Make[]][] = [
	['LEFT', word, whole(0, 12)],
	['RIGHT', word, whole(0, 12)],
	['MID', word, whole(1, 8), whole(1, 8)],
	['LEN', word],
	['UPPER', word],
	['LOWER', word],
	['PROPER', word],
	['TRIM', word],
	['EXACT', word, word],
	['REPLACE', word, whole(1, 5), whole(0, 4), word],
	['REPT', word, whole(0, 5)],
	['YEAR', date],
	['MONTH', date],
	['DAY', date],
	['EDATE', date, whole(-40, 40)],
	['EOMONTH', date, whole(-40, 40)],
	['DAYS', date, date],
	['WEEKDAY', date],
	['ISOWEEKNUM', date],
	['WORKDAY', date, whole(1, 300)],
	['ROUND', amount, whole(-2, 2)],
	['ROUNDUP', amount, whole(-2, 1)],
	['ROUNDDOWN', amount, whole(-2, 1)],
	['INT', amount],
	['SQRT', whole(0, 1000)],
	['LN', whole(1, 1000)],
	['FACT', whole(0, 20)],
	['COMBIN', whole(10, 20), whole(0, 10)],
	['GCD', (random) => [whole(1, 200)(random) as number, whole(1, 200)(random) as number]],
	['LCM', (random) => [whole(1, 50)(random) as number, whole(1, 50)(random) as number]],
	['PMT', rate, whole(1, 60), amount],
	['FV', rate, whole(1, 60), amount, amount],
	['PV', rate, whole(1, 60), amount, amount],
	['IPMT', rate, whole(1, 12), whole(12, 60), amount],
	['PPMT', rate, whole(1, 12), whole(12, 60), amount],
	['NPV', rate, amounts],
	['EFFECT', rate, whole(1, 12)],
	['NOMINAL', rate, whole(1, 12)],
	['SLN', whole(500, 900), whole(1, 100), whole(1, 20)],
	['DDB', whole(500, 900), whole(1, 100), whole(5, 20), whole(1, 5)],
	['MEDIAN', amounts],
	['VAR', amounts],
	['VARP', amounts],
	['STDEV', amounts],
	['STDEVP', amounts],
	['PRODUCT', amounts],
	['SUMSQ', amounts],
	['PERCENTILE', amounts, (random) => random.below(100) / 100],
	['QUARTILE', amounts, whole(1, 3)],
	['LARGE', amounts, whole(1, 2)],
	['SMALL', amounts, whole(1, 2)]
]

/** The library's name for a function of ours, where it has another. */
const THEIR_NAMES: Readonly<Record<string, string>> = {
	VAR: 'VARS',
	STDEV: 'STDEVS',
	PERCENTILE: 'PERCENTILEINC',
	QUARTILE: 'QUARTILEINC'
}

test.each(CASES)(`%s gives what the reference library gives (seed ${SEED})`, (name, ...makes) => {
	const fn = FUNCTIONS.get(name)
	const theirs = findTheirs(name)
	if (!fn) throw new Error(`Expected the function "${name}" to be there`)
	const random = randomFrom(SEED)
	for (let i = 0; i < TRIES; i++) {
		const args = makes.map((make) => make(random))
		const ours = call(fn, [...args, ...fn.parameters.slice(args.length).map(({ otherwise }) => otherwise ?? null)])
		const wanted = theirs(...args.map((arg, at) => toTheirs(arg, fn.parameters[at]?.type === 'date')))
		expect(isErrorValue(ours), `${name} of ${JSON.stringify(args)}`).toBe(false)
		if (typeof wanted === 'number' && typeof ours === 'number') expect(ours).toBeCloseTo(wanted, 6)
		else expect(ours, `${name} of ${JSON.stringify(args)}`).toBe(toOurs(wanted))
	}
})

function findTheirs(name: string): (...args: unknown[]) => unknown {
	const all = reference as unknown as Record<string, unknown>
	const found = all[THEIR_NAMES[name] ?? name]
	if (typeof found !== 'function') throw new Error(`Expected the library to have "${name}"`)
	return found as (...args: unknown[]) => unknown
}

/** The library works on dates of the place where it runs, at midnight. */
function toTheirs(given: Given, isDate: boolean): unknown {
	if (!isDate) return given
	const [year = 0, month = 0, day = 0] = String(given).split('-').map(Number)
	return new Date(year, month - 1, day)
}

function toOurs(wanted: unknown): unknown {
	if (!(wanted instanceof Date)) return wanted
	const two = (part: number) => String(part).padStart(2, '0')
	return `${wanted.getFullYear()}-${two(wanted.getMonth() + 1)}-${two(wanted.getDate())}`
}
