/** Writes random formulas, as text, over the tables of `formula-world.ts`; typed, so that most of them pass the checker. */
import type { Random } from '../../demo/random.ts'

type Kind = 'number' | 'text' | 'date' | 'yesno'

const COLUMNS: Readonly<Record<Kind, readonly string[]>> = {
	number: ['a', 'w', 'm', 'p', 'ratio', 'kid total', 'base.size', 'base.fee'],
	text: ['t', 'u', 'c', 'base.name', 'label two'],
	date: ['d', 'due', 'base.since'],
	yesno: ['y', 'base.open']
}
const KID_COLUMNS: Readonly<Record<Kind, readonly string[]>> = {
	number: ['k', 'cost', 'this.a', 'this.w'],
	text: ['kt', 'this.t'],
	date: ['kd', 'this.d'],
	yesno: ['ky', 'this.y']
}
const TEXTS = ['""', '"Varrow"', '"varrow"', '"ness HYTHE"', '"ΣΊΣΥΦΟΣ"', '"ab c"', '"Swinging"', '"10"']
const NUMBERS = ['0', '1', '-1', '2', '0.5', '7', '100', '0.1', '12.34', '1E3', '33']
const DATES = ['DATE(2026; 11; 23)', 'DATE(2024; 2; 29)', 'TODAY()', 'DATE(2025; w; 1)']

export function writeFormula(random: Random, kind: Kind, depth: number, inKids = false): string {
	const columns = inKids ? KID_COLUMNS : COLUMNS
	const sub = (of: Kind) => writeFormula(random, of, depth - 1, inKids)
	if (depth <= 0 || random.chance(0.2)) return leaf(random, kind, columns)
	if (random.chance(0.12)) return `IF(${sub('yesno')}; ${sub(kind)}; ${sub(kind)})`
	if (random.chance(0.1)) return `IFERROR(${sub(kind)}; ${sub(kind)})`
	switch (kind) {
		case 'number':
			return writeNumber(random, sub, inKids)
		case 'text':
			return `(${sub('text')} & ${sub(random.pick(['text', 'number', 'date', 'yesno']))})`
		case 'date':
			return random
				.pick([
					() => `EDATE(${sub('date')}; ${sub('number')})`,
					() => `WORKDAY(${sub('date')}; ${random.pick(['1', '-3', '10', 'w'])})`,
					() => `(${sub('date')} + ${random.pick(['1', '30', 'w'])})`
				])()
				.replaceAll('w)', inKids ? 'this.w)' : 'w)')
		case 'yesno':
			return writeCondition(random, sub, inKids)
	}
}

function leaf(random: Random, kind: Kind, columns: Readonly<Record<Kind, readonly string[]>>): string {
	if (random.chance(0.6)) return random.pick(columns[kind])
	switch (kind) {
		case 'number':
			return random.pick(NUMBERS)
		case 'text':
			return random.pick(TEXTS)
		case 'date':
			return random.pick(DATES.slice(0, columns === COLUMNS ? 4 : 3))
		case 'yesno':
			return random.pick(['TRUE', 'FALSE'])
	}
}

function writeNumber(random: Random, sub: (of: Kind) => string, inKids: boolean): string {
	if (!inKids && random.chance(0.25)) return writeTotal(random)
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
		() => `SUM(${sub('number')}; ${sub('number')})`
	])()
}

function writeTotal(random: Random): string {
	const filter = () => `FILTER(kids; ${writeFormula(random, 'yesno', 2, true)})`
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
		() => `MAX(${filter()}.k)`
	])()
}

function writeCondition(random: Random, sub: (of: Kind) => string, inKids: boolean): string {
	const kind = random.pick(['number', 'text', 'date'] as const)
	const op = random.pick(['=', '<>', '<', '<=', '>', '>='])
	return random
		.pick([
			() => `(${sub(kind)} ${op} ${sub(kind)})`,
			() => `(${sub(kind)} ${op} ${sub(kind)})`,
			() => `(${sub('yesno')} and ${sub('yesno')})`,
			() => `(${sub('yesno')} or ${sub('yesno')})`,
			() => `(not ${sub('yesno')})`,
			() => `ISBLANK(${sub(random.pick(['number', 'text', 'date', 'yesno']))})`,
			() => `(${sub('text')} in (${sub('text')}; "varrow"))`,
			() => `(${sub('yesno')} ${random.pick(['=', '<>'])} ${sub('yesno')})`,
			() => (inKids ? '(of = this.base.twin)' : '(base = other)'),
			() => (inKids ? '(k > this.a)' : '("varrow" in kids.kt)')
		])()
		.replace('(of = this.base.twin)', '(k >= 2)')
}
