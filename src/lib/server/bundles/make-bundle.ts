/** An app with its tables, for another workspace: those that its maker keeps, as nobody else knows how they are made and shared. */
import type { AppDocument } from '$lib/core/app/document.ts'
import { filesOfApp } from '$lib/core/app/files-of-app.ts'
import {
	BUNDLE_FORMAT,
	MOST_BUNDLED,
	type Bundle,
	type BundleCell,
	type BundleRow,
	type BundleTable
} from '$lib/core/app/bundle.ts'
import { tablesOf } from '$lib/core/app/walk-app.ts'
import { AppError } from '$lib/core/app-error.ts'
import { someNode } from '$lib/core/formula/syntax/walk.ts'
import type { Expr } from '$lib/core/model/formula.ts'
import type { Column, Table } from '$lib/core/model/table.ts'
import { cellKey, isReferenceCell, type WireCell } from '$lib/core/query/wire.ts'
import type { ColumnEntry } from '$lib/core/workspace/document.ts'
import { readDraft } from '../apps/apps.ts'
import { refuseUnlessBuilder } from '../rights/builders.ts'
import type { ByActor } from '../rights/rights-of-actor.ts'
import { readRows } from '../rows/read.ts'
import type { Store } from '../store/store.ts'

/** A bundle but for the bytes of its files, and what stays behind, in words. */
export interface MadeBundle {
	readonly bundle: Omit<Bundle, 'files' | 'app'> & { readonly app: AppDocument }
	readonly shows: readonly string[]
	readonly leftOut: readonly string[]
}

const AT_ONCE = 1_000

export function makeBundle(store: Store, { app, actor, now }: ByActor & { app: number }): MadeBundle {
	refuseUnlessBuilder(store, actor)
	const { document, catalogue } = store.workspace()
	const draft = readDraft(store, app).document
	const reached = reachedFrom(store, draft)
	const isPeople = ({ id }: Table) => id === catalogue.people.id
	const kept = reached.filter((table) => !isPeople(table) && table.keepers.includes(actor.person))
	const inside = new Set(kept.map(({ id }) => id))
	const others = reached.filter((table) => !inside.has(table.id) && !isPeople(table))
	const made = kept.map((table) => new TableMaker(store, table, inside))
	let room = MOST_BUNDLED
	const tables = made.map((maker): BundleTable => {
		const rows = [...maker.rows({ actor, now })]
		room -= rows.length
		if (room < 0)
			throw new AppError(
				'invalid',
				`The tables of this app hold more than ${MOST_BUNDLED.toLocaleString('en-GB')} rows together. Save them as files instead, and bring these in there.`
			)
		return { ...maker.entry(), rows }
	})
	const people = document.tables.find(({ id }) => id === document.people)
	return {
		bundle: {
			bundle: BUNDLE_FORMAT,
			app: draft,
			people: { id: document.people, columns: (people?.columns ?? []).map(({ id, name }) => ({ id, name })) },
			roles: document.roles.map(({ id, name }) => ({ id, name })),
			tables,
			access: document.lines.filter(({ table }) => inside.has(table))
		},
		shows: [...filesOfApp(draft)],
		leftOut: [
			...others.map(({ name }) => `${name}: kept by somebody else. What points to it is text.`),
			...made.flatMap((maker) => maker.leftOut),
			...(reached.includes(catalogue.people) ? ['People: never in a bundle. What points to them is blank.'] : [])
		]
	}
}

/** The tables that an app names, those that these point to, and those that their columns are worked out from. */
function reachedFrom(store: Store, draft: AppDocument): Table[] {
	const { tables } = store.workspace().catalogue
	const found = new Set<Table>()
	const reach = (id: number | undefined) => {
		const table = tables.get(id ?? 0)
		if (!table || found.has(table)) return
		found.add(table)
		for (const { to, computed, otherwise } of table.columns) {
			reach(to)
			for (const expr of [computed?.expr, otherwise?.expr]) for (const id of expr ? tablesRead(expr) : []) reach(id)
		}
	}
	for (const { table } of tablesOf(draft)) reach(table)
	return [...found]
}

function tablesRead(expr: Expr): Set<number> {
	const found = new Set<number>()
	someNode(expr, (node) => {
		if (node.kind === 'field') found.add(node.table.id)
		if (node.type.kind === 'row') found.add(node.type.table.id)
		if (node.type.kind === 'rows') found.add(node.type.table.id)
		return false
	})
	return found
}

const FILES: ReadonlySet<Column['type']> = new Set(['photo', 'ink', 'signature', 'file'])

/** One table as it goes into a bundle. */
class TableMaker {
	readonly leftOut: string[] = []
	readonly #store: Store
	readonly #table: Table
	/** The tables of the bundle. */
	readonly #inside: ReadonlySet<number>

	constructor(store: Store, table: Table, inside: ReadonlySet<number>) {
		this.#store = store
		this.#table = table
		this.#inside = inside
	}

	entry(): Omit<BundleTable, 'rows'> {
		const { document } = this.#store.workspace()
		const { id, name, label, about, checks, columns } =
			document.tables.find((each) => each.id === this.#table.id) ?? missing(this.#table)
		return {
			...{ id, name, label },
			...(about === undefined ? {} : { about }),
			...(checks === undefined ? {} : { checks }),
			columns: columns.flatMap((column) => this.#column(column) ?? [])
		}
	}

	/** A reference to what stays behind becomes what its row is called; what is worked out from that stays behind too. */
	#column(entry: ColumnEntry): ColumnEntry | undefined {
		const column = this.#table.columns.find(({ id }) => id === entry.id)
		if (!column) return undefined
		const isPeople = column.to === this.#store.workspace().document.people
		if (column.to !== undefined && !isPeople && !this.#inside.has(column.to)) {
			const { to: _to, reverseName: _name, onRemoval: _removal, ...rest } = entry
			return { ...rest, type: 'text' }
		}
		const read = column.computed ? [...tablesRead(column.computed.expr)] : []
		if (read.every((id) => this.#inside.has(id) || id === this.#store.workspace().document.people)) return entry
		this.leftOut.push(`${this.#table.name}, ${column.name}: it is worked out from a table that stays behind.`)
		return undefined
	}

	*rows(by: ByActor): Generator<BundleRow> {
		const columns = this.#table.columns.filter((column) => !column.computed && !FILES.has(column.type))
		const files = this.#table.columns.filter(({ type }) => FILES.has(type))
		if (files.length > 0)
			this.leftOut.push(`${this.#table.name}: what lies in ${files.map(({ name }) => name).join(', ')}.`)
		let after: string | undefined
		do {
			const asked = { table: this.#table.id, columns: columns.map(({ id }) => id), limit: AT_ONCE, after }
			const page = readRows(this.#store, by.actor, asked, by.now)
			for (const { id, cells } of page.rows) {
				const filled = columns.flatMap((column) => {
					const cell = this.#cell(column, cells[cellKey(column.id)])
					return cell === null ? [] : [[cellKey(column.id), cell] as const]
				})
				yield { id, cells: Object.fromEntries(filled) }
			}
			after = page.next ?? undefined
		} while (after !== undefined)
	}

	#cell({ to }: Column, cell: WireCell | undefined): BundleCell {
		if (isReferenceCell(cell)) {
			if (to === this.#store.workspace().document.people) return null
			return this.#inside.has(to ?? 0) ? { row: cell.id } : cell.label
		}
		return cell === undefined || typeof cell === 'object' ? null : cell
	}
}

function missing({ name }: Table): never {
	throw new Error(`Expected the workspace to hold the table ${name}`)
}
