/**
 * Loans, savings and wear. OpenFormula 6.12 (clause from memory).
 *
 * Money that is paid out is negative, money that comes in positive; a rate is for one period; `at start` means that
 * payments fall at the start of each period.
 */
import { BAD_NUMBER, BAD_VALUE, DIV_ZERO, NOT_AVAILABLE, type FunctionEntry, type Value } from '../../model/formula.ts'
import { family } from './define.ts'

const money = family('money over time')

const RATE = { name: 'rate', type: 'number' } as const
const PERIODS = { name: 'periods', type: 'number' } as const
const PERIOD = { name: 'period', type: 'number' } as const
const PAYMENT = { name: 'payment', type: 'number' } as const
const NOW = { name: 'value now', type: 'number' } as const
const NOW_OR_NONE = { ...NOW, otherwise: 0 } as const
const LATER = { name: 'value later', type: 'number', otherwise: 0 } as const
const AT_START = { name: 'at start', type: 'yesno', otherwise: false } as const
const COST = [
	{ name: 'cost', type: 'number' },
	{ name: 'salvage', type: 'number' },
	{ name: 'life', type: 'number' }
] as const

const MAX_STEPS = 100
const NEAR = 1e-12

export const MONEY_FUNCTIONS: readonly FunctionEntry[] = [
	money({
		name: 'PMT',
		parameters: [RATE, PERIODS, NOW, LATER, AT_START],
		result: 'number',
		doc: 'The payment for each period of a loan or savings plan.',
		examples: [['PMT(0; 10; 1000)', '-100']],
		canFail: true,
		evaluate: payment
	}),
	money({
		name: 'FV',
		parameters: [RATE, PERIODS, PAYMENT, NOW_OR_NONE, AT_START],
		result: 'number',
		doc: 'What a series of payments comes to at the end.',
		examples: [['FV(0; 12; -100)', '1200']],
		canFail: true,
		evaluate: futureValue
	}),
	money({
		name: 'PV',
		parameters: [RATE, PERIODS, PAYMENT, LATER, AT_START],
		result: 'number',
		doc: 'What a series of payments is worth now.',
		examples: [['PV(0; 10; 100)', '-1000']],
		canFail: true,
		evaluate: (rate, periods, paid, later, atStart) =>
			rate === 0
				? -later - paid * periods
				: -(later + paid * (1 + rate * Number(atStart)) * growth(rate, periods)) / (1 + rate) ** periods
	}),
	money({
		name: 'NPER',
		parameters: [RATE, PAYMENT, NOW, LATER, AT_START],
		result: 'number',
		doc: 'How many periods it takes.',
		examples: [['NPER(0; -100; 1000)', '10']],
		canFail: true,
		evaluate: (rate, paid, now, later, atStart) => {
			if (rate === 0) return paid === 0 ? DIV_ZERO : -(now + later) / paid
			const level = paid * (1 + rate * Number(atStart))
			const ratio = (level - later * rate) / (now * rate + level)
			return ratio > 0 ? Math.log(ratio) / Math.log(1 + rate) : BAD_NUMBER
		}
	}),
	money({
		name: 'RATE',
		parameters: [PERIODS, PAYMENT, NOW, LATER, AT_START, { name: 'guess', type: 'number', otherwise: 0.1 }],
		result: 'number',
		doc: 'The rate for a period at which the payments come out.',
		examples: [['ROUND(RATE(12; -88.8488; 1000); 4)', '0.01']],
		canFail: true,
		evaluate: (periods, paid, now, later, atStart, guess) =>
			findRoot(
				(rate) => now * (1 + rate) ** periods + paid * (1 + rate * Number(atStart)) * growth(rate, periods) + later,
				guess
			)
	}),
	money({
		name: 'IPMT',
		parameters: [RATE, PERIOD, PERIODS, NOW, LATER, AT_START],
		result: 'number',
		doc: 'The part of one payment that is interest.',
		examples: [['IPMT(0.01; 1; 12; 1000)', '-10']],
		canFail: true,
		evaluate: interest
	}),
	money({
		name: 'PPMT',
		parameters: [RATE, PERIOD, PERIODS, NOW, LATER, AT_START],
		result: 'number',
		doc: 'The part of one payment that pays the loan back.',
		examples: [['PPMT(0; 1; 10; 1000)', '-100']],
		canFail: true,
		evaluate: (rate, period, periods, now, later, atStart) => {
			const part = interest(rate, period, periods, now, later, atStart)
			return typeof part === 'number' ? payment(rate, periods, now, later, atStart) - part : part
		}
	}),
	money({
		name: 'NPV',
		parameters: [RATE, { name: 'amounts', type: 'numbers', rest: true }],
		result: 'number',
		doc: 'What amounts at the end of each period are worth now.',
		examples: [['ROUND(NPV(0.1; -100; 60; 60; 60); 4)', '44.7374']],
		canFail: true,
		evaluate: (rate, amounts) => (rate === -1 ? DIV_ZERO : worthNow(rate, amounts) / (1 + rate))
	}),
	money({
		name: 'IRR',
		parameters: [
			{ name: 'amounts', type: 'numbers' },
			{ name: 'guess', type: 'number', otherwise: 0.1 }
		],
		result: 'number',
		doc: 'The rate at which amounts, one a period, are worth nothing now.',
		examples: [['ROUND(IRR({-100; 60; 60}); 6)', '0.130662']],
		canFail: true,
		evaluate: (amounts, guess) =>
			amounts.some((each) => each > 0) && amounts.some((each) => each < 0)
				? findRoot((rate) => worthNow(rate, amounts), guess)
				: BAD_NUMBER
	}),
	money({
		name: 'EFFECT',
		parameters: [RATE, { name: 'periods a year', type: 'number' }],
		result: 'number',
		doc: 'The rate a year that a nominal rate comes to when interest is added several times.',
		examples: [['EFFECT(0.12; 1)', '0.12']],
		canFail: true,
		evaluate: (rate, given) => {
			const times = Math.trunc(given)
			return times < 1 || rate <= 0 ? BAD_NUMBER : (1 + rate / times) ** times - 1
		}
	}),
	money({
		name: 'NOMINAL',
		parameters: [RATE, { name: 'periods a year', type: 'number' }],
		result: 'number',
		doc: 'The nominal rate a year behind an effective one.',
		examples: [['NOMINAL(0.12; 1)', '0.12']],
		canFail: true,
		evaluate: (rate, given) => {
			const times = Math.trunc(given)
			return times < 1 || rate <= 0 ? BAD_NUMBER : times * ((1 + rate) ** (1 / times) - 1)
		}
	}),
	money({
		name: 'SLN',
		parameters: COST,
		result: 'number',
		doc: 'The wear of one period, the same for each.',
		examples: [['SLN(1000; 100; 9)', '100']],
		canFail: true,
		evaluate: (cost, salvage, life) => (life === 0 ? DIV_ZERO : (cost - salvage) / life)
	}),
	money({
		name: 'DDB',
		parameters: [...COST, PERIOD, { name: 'factor', type: 'number', otherwise: 2 }],
		result: 'number',
		doc: 'The wear of one period, the same part of what is left each time.',
		examples: [['DDB(2400; 300; 10; 1)', '480']],
		canFail: true,
		evaluate: decliningWear
	})
]

/** (1 + rate)^periods - 1, over the rate; the number of periods where the rate is nought. */
function growth(rate: number, periods: number): number {
	return rate === 0 ? periods : ((1 + rate) ** periods - 1) / rate
}

function payment(rate: number, periods: number, now: number, later: number, atStart: boolean): number {
	if (rate === 0) return -(now + later) / periods
	return -(now * (1 + rate) ** periods + later) / ((1 + rate * Number(atStart)) * growth(rate, periods))
}

function futureValue(rate: number, periods: number, paid: number, now: number, atStart: boolean): number {
	return -(now * (1 + rate) ** periods + paid * (1 + rate * Number(atStart)) * growth(rate, periods))
}

function interest(rate: number, period: number, periods: number, now: number, later: number, atStart: boolean): Value {
	if (period < 1 || period >= periods + 1) return BAD_VALUE
	const paid = payment(rate, periods, now, later, atStart)
	if (atStart && period === 1) return 0
	const owed = futureValue(rate, period - (atStart ? 2 : 1), paid, now, atStart) - (atStart ? paid : 0)
	return owed * rate
}

function worthNow(rate: number, amounts: readonly number[]): number {
	return amounts.reduceRight((worth, amount) => worth / (1 + rate) + amount, 0)
}

/** Newton's way from the guess; where that runs off, halving between two rates of opposite sign. */
function findRoot(worth: (rate: number) => number, guess: number): Value {
	let rate = guess
	for (let step = 0; step < MAX_STEPS; step++) {
		const value = worth(rate)
		const width = Math.max(1e-7, Math.abs(rate) * 1e-7)
		const slope = (worth(rate + width) - worth(rate - width)) / (2 * width)
		const next = rate - value / slope
		if (!Number.isFinite(next) || next <= -1) break
		if (Math.abs(next - rate) < NEAR) return next
		rate = next
	}
	return halve(worth)
}

function halve(worth: (rate: number) => number): Value {
	const rates = [-0.999, -0.9, -0.5, -0.1, 0, 0.1, 0.5, 1, 10, 100]
	for (let i = 1; i < rates.length; i++) {
		let [low = 0, high = 0] = [rates[i - 1], rates[i]]
		if (worth(low) * worth(high) > 0) continue
		for (let step = 0; step < 200 && high - low > NEAR; step++) {
			const middle = (low + high) / 2
			if (worth(low) * worth(middle) <= 0) high = middle
			else low = middle
		}
		return (low + high) / 2
	}
	return NOT_AVAILABLE
}

function decliningWear(cost: number, salvage: number, life: number, period: number, factor: number): Value {
	if (cost < 0 || salvage < 0 || life <= 0 || factor <= 0 || period < 1 || period > life) return BAD_NUMBER
	const part = Math.min(1, factor / life)
	const left = (after: number) => cost * (1 - part) ** after
	return Math.max(0, Math.min(left(period - 1) - left(period), left(period - 1) - salvage))
}
