/** Writes random formulas, as text, over the tables of `formula-world.ts`; typed, so that most of them pass the checker. */
import { FUNCTIONS } from '$lib/core/formula/functions/table.ts'
import type { FunctionEntry, Parameter } from '$lib/core/model/formula.ts'
import type { Random } from '../../demo/random.ts'

export type Kind = 'number' | 'text' | 'date' | 'yesno'

interface Place {
	readonly columns: Readonly<Record<Kind, readonly string[]>>
	/** Whether the formula stands on the row that has kids, so that sets of them can be totalled. */
	readonly outer: boolean
}

const OUTER: Place = {
	outer: true,
	columns: {
		number: ['a', 'w', 'm', 'p', 'ratio', 'kid total', 'base.size', 'base.fee', 'len', '(at - NOW())'],
		text: ['t', 'u', 'c', 'base.name', 'label two'],
		date: ['d', 'due', 'base.since'],
		yesno: ['y', 'base.open']
	}
}
const INNER: Place = {
	outer: false,
	columns: {
		number: ['k', 'cost', 'this.a', 'this.w'],
		text: ['kt', 'this.t'],
		date: ['kd', 'this.d'],
		yesno: ['ky', 'this.y']
	}
}
const CONSTANTS: Readonly<Record<Kind, readonly string[]>> = {
	text: [
		'""',
		'"Varrow"',
		'"varrow"',
		'"ness HYTHE"',
		'"ΣΊΣΥΦΟΣ"',
		'"ab c"',
		'"Swinging"',
		'"10"',
		'"#,##0.0"',
		'"d mmm yy"'
	],
	number: ['0', '1', '-1', '2', '0.5', '7', '100', '0.1', '12.34', '1E3', '33'],
	date: ['DATE(2026; 11; 23)', 'DATE(2024; 2; 29)', 'TODAY()', '"2025-06-30"'],
	yesno: ['TRUE', 'FALSE']
}
const SETS: Readonly<Record<string, readonly string[]>> = {
	numbers: ['kids.k', 'kids.cost', 'kids.share', '{1; 2; 2; 5}', 'FILTER(kids; k > 0).cost', 'SORT(kids; kt).k'],
	texts: ['kids.kt', 'SORT(kids; k; TRUE).kt', '{"a"; ""; "b"}'],
	dates: ['kids.kd', '{"2026-11-24"; "2026-11-25"}']
}
const FUNCTION_LIST: readonly FunctionEntry[] = [...FUNCTIONS.values()]

export function writeFormula(random: Random, kind: Kind, depth: number): string {
	return write({ random, place: OUTER }, kind, depth)
}

interface Writer {
	readonly random: Random
	readonly place: Place
}

function write(writer: Writer, kind: Kind, depth: number): string {
	const { random } = writer
	const sub = (of: Kind) => write(writer, of, depth - 1)
	if (depth <= 0 || random.chance(0.2)) return leaf(writer, kind)
	if (random.chance(0.1)) return `IF(${sub('yesno')}; ${sub(kind)}; ${sub(kind)})`
	if (random.chance(0.08)) return `${random.pick(['IFERROR', 'IFNA'])}(${sub(kind)}; ${sub(kind)})`
	if (random.chance(0.35)) return writeCall(writer, kind, sub)
	switch (kind) {
		case 'number':
			return writeNumber(writer, sub)
		case 'text':
			return `(${sub('text')} & ${sub(random.pick(['text', 'number', 'date', 'yesno']))})`
		case 'date':
			return `(${sub('date')} + ${sub('number')})`
		case 'yesno':
			return writeCondition(writer, sub)
	}
}

function leaf({ random, place }: Writer, kind: Kind): string {
	return random.pick(random.chance(0.6) ? place.columns[kind] : CONSTANTS[kind])
}

/** Any function of the table that gives this kind, with parts of the kinds that it takes. */
function writeCall({ random, place }: Writer, kind: Kind, sub: (of: Kind) => string): string {
	const fitting = FUNCTION_LIST.filter((fn) => fn.result === kind && (place.outer || !takesSet(fn)))
	const fn = random.pick(fitting)
	const given = fn.parameters.filter((parameter) => parameter.otherwise === undefined || random.chance(0.5))
	// What may be left out is left out from the end.
	const args = fn.parameters.slice(0, given.length).map((parameter) => writeArgument(random, parameter, sub))
	return `${fn.name}(${args.join('; ')})`
}

function takesSet(fn: FunctionEntry): boolean {
	return fn.parameters.some((parameter) => parameter.type in SETS)
}

function writeArgument(random: Random, { type, rest }: Parameter, sub: (of: Kind) => string): string {
	switch (type) {
		case 'number':
		case 'text':
		case 'date':
		case 'yesno':
			return sub(type)
		case 'time':
			return random.pick([`TIME(${sub('number')}; 30; 0)`, 'TIME(7; 45; 10)', sub('number')])
		default:
			if (rest && random.chance(0.3)) return `${leafOf(type, sub)}; ${leafOf(type, sub)}`
			return random.pick(SETS[type] ?? [])
	}
}

function leafOf(type: 'numbers' | 'texts' | 'dates', sub: (of: Kind) => string): string {
	return sub(type === 'numbers' ? 'number' : type === 'texts' ? 'text' : 'date')
}

function writeNumber(writer: Writer, sub: (of: Kind) => string): string {
	const { random, place } = writer
	if (place.outer && random.chance(0.25)) return writeTotal(writer)
	return random.pick([
		() => `(${sub('number')} + ${sub('number')})`,
		() => `(${sub('number')} - ${sub('number')})`,
		() => `(${sub('number')} * ${sub('number')})`,
		() => `(${sub('number')} / ${sub('number')})`,
		() => `(-${sub('number')})`,
		() => `${sub('number')}%`,
		() => `(${sub('number')} ^ ${random.pick(['2', '0.5', '-1'])})`,
		() => `(${sub('date')} - ${sub('date')})`,
		() => `MAX(${sub('number')}; ${sub('number')})`,
		() => `SUM(${sub('number')}; ${sub('number')})`,
		() => `COUNT(${sub('number')}; ${sub('text')})`,
		() => `COUNTA(${sub('number')}; ${sub('text')})`,
		() => `ERROR.TYPE(${sub('number')})`,
		() => (place.outer ? 'HOUR(at)' : 'MINUTE(this.at)'),
		() => (place.outer ? '(at + len - at)' : '(this.at - this.at)'),
		() => `CHOOSE(${sub('number')}; ${sub('number')}; 2)`,
		() => `SWITCH(${sub('text')}; "varrow"; ${sub('number')}; ${sub('text')}; 3)`
	])()
}

function writeTotal({ random }: Writer): string {
	const filter = () => `FILTER(kids; ${write({ random, place: INNER }, 'yesno', 2)})`
	const sort = () =>
		`SORT(${random.pick(['kids', filter()])}; ${random.pick(['k', 'kt', 'kd', 'share'])}; ${random.pick(['TRUE', 'FALSE'])})`
	return random.pick([
		() => 'COUNT(kids)',
		() => `COUNT(${filter()})`,
		() => `SUM(${filter()}.cost)`,
		() => 'SUM(kids.cost)',
		() => 'SUM(kids.k)',
		() => 'MIN(kids.k)',
		() => 'AVERAGE(kids.k)',
		() => 'AVERAGE(kids.cost)',
		() => 'SUM(kids.share)',
		() => `MAX(${filter()}.k)`,
		() => 'COUNTBLANK(kids.kt)',
		() => `FIRST(${sort()}).k`,
		() => `FIRST(${sort()}.share)`,
		() => `SUMIF(kids.kt; ${random.pick(['"varrow"', '"<>Varrow"', '"*a*"', 't'])}; kids.cost)`,
		() => `COUNTIFS(kids.k; ">0"; kids.ky; "TRUE")`,
		() => `AVERAGEIF(kids.k; ${random.pick(['">1"', '"<0"', 'w'])})`,
		() => `MAXIFS(kids.cost; kids.kd; ${random.pick(['">=2026-01-01"', 'd'])})`
	])()
}

function writeCondition({ random, place }: Writer, sub: (of: Kind) => string): string {
	const kind = random.pick(['number', 'text', 'date'] as const)
	const any = () => sub(random.pick(['number', 'text', 'date', 'yesno']))
	const op = random.pick(['=', '<>', '<', '<=', '>', '>='])
	return random.pick([
		() => `(${sub(kind)} ${op} ${sub(kind)})`,
		() => `(${sub(kind)} ${op} ${sub(kind)})`,
		() => `(${random.pick(RISING)(random.pick(place.columns.date))} ${op} ${random.pick(CONSTANTS.date)})`,
		() => `(YEAR(${random.pick(place.columns.date)}) ${op} ${random.pick(['2024', '2026', '2025.5', '9999'])})`,
		() => `(${sub('yesno')} and ${sub('yesno')})`,
		() => `(${sub('yesno')} or ${sub('yesno')})`,
		() => `(not ${sub('yesno')})`,
		() => `XOR(${sub('yesno')}; ${sub('yesno')}; ${sub('number')})`,
		() => `ISBLANK(${any()})`,
		() => `${random.pick(['ISERROR', 'ISERR', 'ISNA', 'ISNUMBER', 'ISTEXT'])}(${any()})`,
		() => `(${sub('text')} in (${sub('text')}; "varrow"))`,
		() => `(${sub('yesno')} ${random.pick(['=', '<>'])} ${sub('yesno')})`,
		() => (place.outer ? '(base = other)' : '(k >= 2)'),
		() => (place.outer ? '("varrow" in kids.kt)' : '(k > this.a)')
	])()
}

/** Conditions on dates that the compiler solves for the column. */
const RISING: readonly ((date: string) => string)[] = [
	(date) => `EDATE(${date}; 12)`,
	(date) => `EDATE(${date}; -3)`,
	(date) => `EOMONTH(${date}; 1)`,
	(date) => `(${date} + 30)`,
	(date) => `(${date} - 400)`,
	(date) => `WORKDAY(${date}; 3; {"2026-11-24"})`
]
