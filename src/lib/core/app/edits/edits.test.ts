/** Edits of a document: what one version makes of another, taken back, put beside what somebody else did, and compared. */
import { describe, expect, test } from 'vitest'
import { randomFrom, type Random } from '../../../../../demo/random.ts'
import { appSchema, type AppDocument, type AppInput } from '../document.ts'
import type { ScreenLine, ScreenLineInput } from '../lines/all.ts'
import { allLines, placedLines } from '../lines/tree.ts'
import { applyEdits } from './apply-edits.ts'
import type { Edit } from './edit.ts'
import { editsBetween } from './edits-between.ts'
import { insist, mergeEdits } from './merge-edits.ts'

type LineInput = ScreenLineInput
const app = (...screens: readonly (readonly LineInput[])[]): AppDocument =>
	appSchema.parse({
		...{ format: 3, name: 'Care', about: '', colour: 'sea', routines: [], signoffs: [] },
		screens: screens.map((lines, at) => ({ id: `s${at}`, title: `Screen ${at}`, lines: [...lines] }))
	} satisfies AppInput)
const heading = (id: string, text = id): LineInput => ({ id, kind: 'heading', text })
const section = (id: string, ...lines: LineInput[]): LineInput => ({ id, kind: 'section', title: id, lines })
const done = (document: AppDocument, edits: readonly Edit[]): AppDocument => {
	const applied = applyEdits(document, edits)
	if (!applied.ok) throw new Error(`Expected the edits to go in: ${JSON.stringify(applied)}`)
	return applied.document
}
/** Each line as its way from the screen, with what it says. */
const outline = (document: AppDocument): string[] =>
	document.screens.flatMap(({ id, lines }) =>
		placedLines(lines).map(({ line, within }) => [id, ...within.map((each) => each.id), line.id].join('/'))
	)

/** Lines of both kinds, nested up to three levels. */
function makeLines(random: Random, ids: string[], level = 0): LineInput[] {
	const lines: LineInput[] = []
	while (ids.length > 0 && random.chance(0.75)) {
		const id = ids.shift() ?? ''
		const text = random.pick(['Due', 'Past', 'Sound'])
		const holds = level < 3 && random.chance(0.4)
		lines.push(holds ? section(id, ...makeLines(random, ids, level + 1)) : heading(id, text))
	}
	return lines
}

function makeApp(seed: number): AppDocument {
	const random = randomFrom(seed)
	// The same ids in another order with others among them: kept, moved in and out, changed, new and gone.
	const ids = Array.from({ length: 14 }, (_one, at) => `l${(at * (1 + (seed % 5)) * 3 + seed) % 17}`)
	const screens = Array.from({ length: 2 }, () => makeLines(random, ids))
	return { ...app(...screens), name: random.pick(['Care', 'Upkeep']) }
}

describe('one version made of another', () => {
	test.each(Array.from({ length: 300 }, (_one, seed) => seed))('comes out the same, and goes back: %i', (seed) => {
		const [before, after] = [makeApp(seed), makeApp(seed + 1000)]
		expect(done(before, editsBetween(before, after))).toEqual(after)
		expect(done(after, editsBetween(after, before))).toEqual(before)
		expect(editsBetween(before, structuredClone(before))).toEqual([])
	})

	test('sends what changed and no more', () => {
		const lines = Array.from({ length: 50 }, (_one, at) => heading(`h${at}`))
		const before = app(lines)
		const after = app(lines.map((line, at) => (at === 20 ? heading('h20', 'Due') : line)))
		expect(editsBetween(before, after)).toEqual([
			{
				...{ kind: 'put', home: { screen: 's0', within: null }, id: 'h20' },
				own: { id: 'h20', kind: 'heading', text: 'Due', who: [] },
				was: { id: 'h20', kind: 'heading', text: 'h20', who: [] }
			}
		])
	})

	test('counts as few lines as possible as moved', () => {
		const ids = ['a', 'b', 'c', 'd', 'e']
		const moved = (order: readonly string[]) =>
			editsBetween(app(ids.map((id) => heading(id))), app(order.map((id) => heading(id)))).map(
				(edit) => edit.kind === 'put' && [edit.id, edit.after]
			)
		expect(moved(['b', 'c', 'd', 'e', 'a'])).toEqual([['a', 'e']])
		expect(moved(['e', 'a', 'b', 'c', 'd'])).toEqual([['e', null]])
		expect(moved(['a', 'd', 'c', 'b', 'e'])).toHaveLength(2)
	})
})

describe('beside what another builder did', () => {
	const base = app([heading('a'), section('b', heading('c')), heading('d')])
	const change = (document: AppDocument, lines: readonly LineInput[]) => editsBetween(document, app(lines))

	test('both are kept where they touch different lines', () => {
		const mine = change(base, [heading('a', 'Mine'), section('b', heading('c'), heading('new')), heading('d')])
		const theirs = app([heading('d'), section('b', heading('c', 'Theirs')), heading('a')])
		const merged = mergeEdits(theirs, mine)
		expect(merged.unplaced).toEqual([])
		expect(outline(merged.document)).toEqual(['s0/d', 's0/b', 's0/b/c', 's0/b/new', 's0/a'])
		expect(
			allLines<ScreenLine>(merged.document.screens[0]?.lines ?? []).map((line) => 'text' in line && line.text)
		).toEqual(
			['d', false, 'Theirs', 'new', 'Mine'] // prettier-ignore
		)
	})

	test.each<[string, readonly LineInput[], readonly LineInput[], 'changed' | 'gone']>([
		['the same line changed by both', [heading('a', 'Mine'), section('b', heading('c')), heading('d')], [heading('a', 'Theirs'), section('b', heading('c')), heading('d')], 'changed'], // prettier-ignore
		['a line changed that is gone', [heading('a', 'Mine'), section('b', heading('c')), heading('d')], [section('b', heading('c')), heading('d')], 'gone'], // prettier-ignore
		['a line taken out that was changed', [section('b', heading('c')), heading('d')], [heading('a', 'Theirs'), section('b', heading('c')), heading('d')], 'changed'], // prettier-ignore
		['a holder taken out that holds more by now', [heading('a'), heading('d')], [heading('a'), section('b', heading('c'), heading('theirs')), heading('d')], 'changed'] // prettier-ignore
	])('%s is for who made the change to decide', (_what, mine, theirs, what) => {
		const edits = change(base, mine)
		expect(applyEdits(app(theirs), edits)).toMatchObject({ ok: false, conflict: { what } })
		const { document, unplaced } = mergeEdits(app(theirs), edits)
		expect(document).toEqual(app(theirs))
		const insisted = unplaced.map((conflict) => insist(document, conflict))
		expect(outline(done(document, insisted)).toSorted()).toEqual(outline(app(mine)).toSorted())
	})

	test('a line whose holder is gone stands at the end of the screen', () => {
		const mine = change(base, [heading('a'), section('b', heading('c'), heading('new')), heading('d')])
		const merged = mergeEdits(app([heading('a'), heading('d')]), mine)
		expect(outline(merged.document)).toEqual(['s0/a', 's0/d', 's0/new'])
	})

	test('edits that come a second time change nothing', () => {
		const edits = change(base, [section('b', heading('x'), heading('c', 'Mine')), heading('d')])
		const once = done(base, edits)
		expect(done(once, edits)).toEqual(once)
	})

	test('what is no document is refused whole', () => {
		const edits: Edit[] = [
			{ kind: 'set', key: 'name', value: 'Other', was: 'Care' },
			{ kind: 'put', home: { screen: 's0', within: null }, id: 'x', own: { id: 'x', kind: 'list', table: 'none' }, after: null } // prettier-ignore
		]
		expect(applyEdits(base, edits)).toMatchObject({ ok: false, issues: expect.arrayContaining([expect.anything()]) })
		expect(applyEdits(base, [{ kind: 'set', key: 'name', value: '', was: 'Care' }]).ok).toBe(false)
	})
})
