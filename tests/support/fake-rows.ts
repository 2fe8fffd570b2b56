/** A server of one table for tests of the grid's own logic: rows in memory, asked as the real one is, by `fetch`. */
import { cellKey, type WireCell, type WireRow } from '$lib/core/query/wire.ts'
import type { GridChange } from '$lib/ui/grid/grid-edits.svelte.ts'

const ANCHOR_EVERY = 1_000

export interface FakeRows {
	rows: WireRow[]
	/** What was asked, in order: the path and what stands after it. */
	readonly asked: string[]
	/** What a column refuses, with its words. */
	readonly refuses: Map<number, (value: unknown) => string | undefined>
	/** The blocks that were sent. */
	readonly blocks: { readonly changes: readonly GridChange[]; readonly partly: boolean }[]
	/** Holds back answers until it is called. */
	hold?: Promise<void>
	fetch(path: string, init?: RequestInit): Promise<Response>
}

interface Sent {
	readonly kind: string
	readonly changes: readonly GridChange[]
	readonly partly: boolean
}

export function fakeRows(rows: WireRow[]): FakeRows {
	const bin = new Map<string, WireRow>()
	let next = 1

	function put(change: GridChange): { row: string } | { message: string; column?: number; conflict?: object } {
		if (change.kind === 'remove') {
			const found = fake.rows.find((row) => row.id === change.row)
			if (!found) return { message: 'This row is not there, or not for you to see.' }
			bin.set(change.row, found)
			fake.rows = fake.rows.filter((row) => row !== found)
			return { row: change.row }
		}
		if (change.kind === 'restore') {
			const found = bin.get(change.row)
			if (!found) return { message: 'This row is not there, or not for you to see.' }
			fake.rows = [...fake.rows, found]
			return { row: change.row }
		}
		const old = change.kind === 'change' ? fake.rows.find((row) => row.id === change.row) : undefined
		for (const { column, value, was } of change.cells) {
			const message = fake.refuses.get(column)?.(value)
			if (message !== undefined) return { message, column }
			const theirs = old?.cells[cellKey(column)]
			if (was !== undefined && JSON.stringify(was) !== JSON.stringify(theirs))
				return {
					message: 'Somebody else has changed it meanwhile.',
					column,
					conflict: { column, theirs, yours: value }
				}
		}
		const cells = Object.fromEntries(change.cells.map(({ column, value }) => [cellKey(column), value as WireCell]))
		const row = old
			? { ...old, rev: old.rev + 1, cells: { ...old.cells, ...cells } }
			: { id: `new${next++}`, rev: 1, cells, may: { change: [1, 2, 3], remove: true } }
		fake.rows = old ? fake.rows.map((each) => (each === old ? row : each)) : [...fake.rows, row]
		return { row: row.id }
	}

	function block({ changes, partly }: Sent): Response {
		fake.blocks.push({ changes, partly })
		const before = fake.rows
		const misfits: object[] = []
		const changed = changes.map((change, at) => {
			const done = put(change)
			if ('row' in done) return { row: done.row, rev: 1, conflicts: [] }
			misfits.push({ at, ...done })
			return null
		})
		if (misfits.length > 0 && !partly) {
			fake.rows = before
			return Response.json(
				{ code: 'invalid', message: `${misfits.length} do not fit.`, details: { misfits } },
				{ status: 422 }
			)
		}
		return Response.json({
			changed,
			misfits,
			rows: changed.map((each) => fake.rows.find((row) => row.id === each?.row) ?? null)
		})
	}

	const fake: FakeRows = {
		rows,
		asked: [],
		refuses: new Map(),
		blocks: [],
		async fetch(path, init) {
			fake.asked.push(path)
			await fake.hold
			if (init?.signal?.aborted) throw new DOMException('aborted', 'AbortError')
			if (init?.method === 'POST') return block(JSON.parse(String(init.body)) as Sent)
			const { pathname, searchParams } = new URL(path, 'http://x.example')
			if (pathname.endsWith('/anchors')) {
				const anchors = Array.from({ length: Math.floor(fake.rows.length / ANCHOR_EVERY) }, (_anchor, i) =>
					String(i + 1)
				)
				return Response.json({ count: fake.rows.length, anchors })
			}
			const from = Number(searchParams.get('after') ?? 0) * ANCHOR_EVERY + Number(searchParams.get('skip'))
			const until = from + Number(searchParams.get('limit'))
			return Response.json({
				rows: fake.rows.slice(from, until),
				next: until < fake.rows.length ? 'more' : null,
				columns: [1, 2, 3]
			})
		}
	}
	return fake
}
