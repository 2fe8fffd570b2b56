/** Lines come back from their exact text as they were, whatever stands in them. Generated; the seed is named where one fails. */
import { ARRANGEMENTS } from './slots/measure.ts'
import { MEASURES, PERIODS } from '../query/measure.ts'
import { describe, expect, test } from 'vitest'
import { randomFrom, type Random } from '../../../../demo/random.ts'
import { VERBS } from '../access/types.ts'
import { SCREEN_LINES, SCREEN_SENTENCES } from '../app/lines/all.ts'
import { STARTS, STEPS } from '../routine/routine.ts'
import { SIGNOFF_LINE } from '../signoff/sentence.ts'
import { ACCESS_LINE } from './access-line.ts'
import { printExact } from './exact.ts'
import { readSlot, writeSlot } from './line-values.ts'
import { parseLine } from './parse.ts'
import {
	AFTER_SENDING,
	FORMS_OF_LIST,
	ABREAST,
	CHANGING,
	HELD_KINDS,
	PROPORTIONS,
	TONES,
	WHEN,
	MISSED,
	SIDES,
	type SlotType,
	STANDINGS,
	TAKING_AWAY,
	ACROSS
} from './slots/all.ts'
import { SPANS } from '../document/parts.ts'
import { CALENDAR_VIEWS } from '../schedule/shown-period.ts'
import { ICONS } from '../text/icons.ts'
import type { LineValue, Sentence } from './types.ts'
import type { Vocabulary } from './vocabulary.ts'

const NASTY = [
	'Depth, low water',
	'Bread and butter',
	'This or that, and more',
	'where it lies',
	'opens late',
	'runs ]',
	'[bracket]',
	']',
	']] [',
	'"quoted"',
	'ends with "',
	'say "when", now',
	'dot.ted',
	'(set aside) x',
	'open ( only',
	'Note #3',
	'#12',
	'only this',
	'all columns',
	'all columns but',
	'; a tap opens nothing',
	', by ',
	'latest first',
	'A to Z',
	'Næstved ½ 北',
	'every row'
]
const TEXTS = [
	...NASTY,
	'  kept apart ',
	'two\nlines',
	'Arrears > 0 and Note = "[x], where"',
	'{Code}: [{Depth}]',
	'""',
	'\t'
]

const SCREENS = [...NASTY, NASTY[0] ?? '', 'OPENS LATE'].map((title, i) => ({ id: `s${i}`, title }))
/** Under the names of screens, too. */
const SHARED = NASTY.map((title, i) => ({ id: `g${i}`, title, stands: 'only as lines of other screens' }))

/** Tables of all those names, with columns of all of them; the name of one screen and one routine stands twice. */
const vocabulary: Vocabulary = {
	tables: NASTY.map((name, t) => ({
		id: t + 1,
		name,
		columns: NASTY.map((columnName, c) => ({
			id: (t + 1) * 100 + c,
			name: columnName,
			type: ['text', 'date', 'money', 'choice', 'reference'][c % 5] ?? 'text',
			...(c % 5 === 4 ? { to: 1 + ((t + c) % NASTY.length) } : {})
		}))
	})),
	roles: NASTY.map((name, i) => ({ id: i + 1, name })),
	screens: [...SCREENS, ...SHARED],
	signoffs: [{ id: 'go', name: 'Over five hundred' }],
	routines: [...NASTY, NASTY[5] ?? ''].map((name, i) => ({ id: `r${i}`, name }))
}

const someOf = <T>(random: Random, list: readonly T[]): T[] => {
	const chosen = list.filter(() => random.chance(3 / list.length))
	return chosen.length > 0 ? chosen : [random.pick(list)]
}

/** One in ten names what is gone. */
const MAKE: { readonly [T in SlotType]: (random: Random, table: number) => unknown } = {
	text: (random) => random.pick(TEXTS),
	subject: (random) => random.pick(TEXTS),
	message: (random) => random.pick(TEXTS),
	condition: (random) => random.pick(TEXTS),
	formula: (random) => random.pick(TEXTS),
	person: (random) => random.pick(TEXTS),
	table: (random) => random.pick(vocabulary.tables).id,
	column: (random, table) => (random.chance(0.1) ? 99_999 : random.pick(columnsOf(table))),
	columns: (random, table) => [...someOf(random, columnsOf(table)), ...(random.chance(0.1) ? [99_999] : [])],
	sorts: (random, table) =>
		someOf(random, columnsOf(table)).map((column) => ({ column, descending: random.chance(0.5) })),
	roles: (random) => someOf(random, vocabulary.roles).map(({ id }) => id),
	recurrence: (random) =>
		random.pick(['every day', 'last working day of each month', 'every 2 weeks on Tuesday', 'FREQ=DAILY;COUNT=3']),
	'time of day': (random) => random.pick(['00:00', '08:05', '23:59']),
	days: (random) => random.below(40),
	side: (random) => random.pick(SIDES),
	span: (random) => random.pick(SPANS),
	while: (random) => ({ many: 1 + random.below(99), span: random.pick(SPANS) }),
	missed: (random) => random.pick(MISSED),
	count: (random) => 1 + random.below(999),
	tone: (random) => random.pick(TONES),
	proportions: (random) => random.pick(PROPORTIONS),
	'form of list': (random) => random.pick(FORMS_OF_LIST),
	arrangement: (random) => random.pick(ARRANGEMENTS),
	skipped: () => 'which may be skipped',
	attached: () => 'a CSV file',
	'not starting': () => 'files that come in',
	'opened row': () => 'the row that was added',
	decision: () => 'approved or declined',
	outside: () => 'an address outside',
	program: (random) => random.pick(NASTY),
	'sign-off': (random) => (random.chance(0.1) ? 'gone' : random.pick(vocabulary.signoffs).id),
	'where none': () => 'there are none',
	'calendar view': (random) => random.pick(CALENDAR_VIEWS),
	measure: (random, table) =>
		random.chance(0.3)
			? { of: 'count', column: null }
			: { of: random.pick(MEASURES.filter((of) => of !== 'count')), column: random.pick(columnsOf(table)) },
	grouping: (random, table) => ({
		column: random.pick(columnsOf(table)),
		step: random.pick([null, null, 'bands', 2.5, 1000, ...PERIODS])
	}),
	remembered: () => 'what was sent last',
	'after sending': (random) => random.pick(AFTER_SENDING),
	role: (random) => (random.chance(0.1) ? 999 : random.pick(vocabulary.roles).id),
	verbs: (random) => someOf(random, VERBS),
	'column scope': (random, table) =>
		random.chance(0.3)
			? { kind: 'all' }
			: { kind: random.pick(['only', 'except']), columns: random.chance(0.2) ? [] : someOf(random, columnsOf(table)) },
	routine: (random) => (random.chance(0.1) ? 'gone' : random.pick(vocabulary.routines).id),
	'shared lines': (random) => (random.chance(0.1) ? 'gone' : random.pick(SHARED).id),
	screen: (random) => (random.chance(0.1) ? 'gone' : random.pick(SCREENS).id),
	does: (random) =>
		random.pick([
			{ kind: 'open', screen: random.pick(SCREENS).id },
			{ kind: 'run', routine: random.pick(vocabulary.routines).id },
			{ kind: 'link', address: 'https://tides.example/a b]c' },
			{ kind: 'set' },
			{ kind: 'copy link' },
			{ kind: 'export', format: 'csv defused' },
			{ kind: 'print' },
			{ kind: 'start over' }
		]),
	when: (random) => random.pick(WHEN),
	standing: (random) => random.pick(STANDINGS),
	icon: (random) => random.pick(ICONS),
	'taking away': (random) => random.pick(TAKING_AWAY),
	across: (random) => random.pick(ACROSS),
	changing: (random) => random.pick(CHANGING),
	abreast: (random) => random.pick(ABREAST),
	once: () => 'once to each person',
	picture: (random) => ({ name: random.pick(NASTY), sha: 'ab'.repeat(32) }),
	film: (random) => ({ name: random.pick(NASTY), sha: '0f'.repeat(32) }),
	ground: (random) => ({ name: random.pick(NASTY), sha: '0f'.repeat(32) }),
	'held kind': (random) => random.pick(HELD_KINDS),
	children: (random) =>
		someOf(random, vocabulary.tables).map(({ id }) => ({
			table: id,
			column: random.pick(columnsOf(id)),
			columns: random.chance(0.2) ? [] : someOf(random, columnsOf(id))
		}))
}

const columnsOf = (table: number) =>
	vocabulary.tables.find(({ id }) => id === table)?.columns.map((column) => column.id) ?? []

/** A line of the kind; one slot in five is left blank. */
function makeLine(random: Random, { kind, blank }: Sentence, under: number): LineValue {
	let line = blank
	const slots = kind.parts.filter((part) => typeof part !== 'string')
	for (const slot of slots.toSorted((a, b) => Number(b.type === 'table') - Number(a.type === 'table'))) {
		if (random.chance(0.2) && slot.type !== 'table') continue
		const own = kind.tableKey === undefined ? under : Number(readSlot(line, kind.tableKey))
		line = writeSlot(line, slot.key, MAKE[slot.type](random, own))
	}
	return line
}

const SENTENCES: readonly (readonly [string, Sentence, readonly Sentence[]])[] = [
	['a line of access', ACCESS_LINE, [ACCESS_LINE]],
	['a sign-off', SIGNOFF_LINE, [SIGNOFF_LINE]],
	...SCREEN_SENTENCES.map((sentence) => [`a ${sentence.kind.kind}`, sentence, SCREEN_SENTENCES] as const),
	...Object.entries(STEPS).map(([kind, { sentence }]) => [`a step: ${kind}`, sentence, all(STEPS)] as const),
	...Object.entries(STARTS).map(([kind, { sentence }]) => [`a start: ${kind}`, sentence, all(STARTS)] as const)
]

function all(record: Readonly<Record<string, { readonly sentence: Sentence }>>): Sentence[] {
	return Object.values(record).map(({ sentence }) => sentence)
}

describe.each(SENTENCES)('%s', (_name, sentence, kinds) => {
	test('comes back from its exact text, among all kinds of its place', () => {
		for (let seed = 1; seed <= 300; seed++) {
			const random = randomFrom(seed)
			const under = random.pick(vocabulary.tables).id
			const line = makeLine(random, sentence, under)
			const text = printExact(sentence.kind, line, vocabulary, under)
			expect({ seed, text, ...parseLine(text, kinds, vocabulary, under) }).toEqual({ seed, text, ok: true, line })
		}
	})

	test('says all that is kept of it', () => {
		const keys = sentence.kind.parts.flatMap((part) => (typeof part === 'string' ? [] : [part.key]))
		// Lines that one holds are lines of their own.
		const kept = leaves(sentence.blank).filter((key) => !/(^|\.)kind$|^lines$/.test(key))
		expect(kept.filter((key) => !keys.some((each) => key === each || key.startsWith(`${each}.`)))).toEqual([])
	})
})

/** The keys of all values in a line, with dots where they lie deeper. */
function leaves(value: unknown, above = ''): string[] {
	if (value === null || typeof value !== 'object' || Array.isArray(value)) return [above]
	return Object.entries(value).flatMap(([key, inner]) => leaves(inner, above === '' ? key : `${above}.${key}`))
}

test('exact text is read as it is written down', () => {
	const line = { kind: 'list', table: 1, where: 'Note = "]"', sort: [{ column: 101, descending: true }], columns: [100, 101], opens: 's0' } // prettier-ignore
	expect(printExact(SCREEN_LINES.list.sentence.kind, line, vocabulary)).toBe(
		'List of ["Depth, low water"] where [Note = "]]"], by [Bread and butter, latest first]; each row shows ["Depth, low water", Bread and butter]; a tap opens ["Depth, low water" #s0]'
	)
})

test.each([
	['List of [Nowhere] [], by []; each row shows []; a tap opens []', 'There is no table "Nowhere".'],
	['Button [Go] [runs nowhere at all]', 'There is no routine "nowhere at all".']
])('what cannot be found is said: %s', (text, message) => {
	const parsed = parseLine(text, SCREEN_SENTENCES, vocabulary)
	expect(parsed.ok ? '' : parsed.message).toContain(message)
})
