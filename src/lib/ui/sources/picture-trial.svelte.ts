/** The addresses of pictures in a column, tried one after another in this browser, and copied where their server lets it. */
import { cellKey } from '$lib/core/query/wire.ts'
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
import type { BenchTable } from '$lib/core/requests/bench.ts'
import { fromDataAddress, giveFile, readyPhoto } from '../cells/give-file.ts'
import { showCell } from '$lib/core/requests/show-cell.ts'
import { ask, send } from '../send.ts'

export interface Tried {
	readonly row: string
	readonly label: string
	readonly address: string
	readonly outcome: 'opens' | 'does not open' | 'copied' | 'not copied'
	readonly why: string
}

const AT_ONCE = 6
const PAGE = 1_000
const SHOWN_EVERY_MS = 200
const LONGEST_MS = 20_000
const ADDRESS = /^(https?:\/\/|data:image\/)/i

export class PictureTrial {
	state = $state<'idle' | 'trying' | 'copying' | 'done'>('idle')
	tried = $state.raw<readonly Tried[]>([])
	/** How many rows there are, once it is known. */
	of = $state(0)
	/** Rows without an address. */
	blank = $state(0)
	wrong = $state('')
	private turn = 0
	/** All of them; shown a few times a second, since a list may have a hundred thousand. */
	private all: Tried[] = []
	private shownAt = 0

	stop(): void {
		this.turn++
		if (this.state !== 'idle') this.end('')
	}

	async begin(table: BenchTable, column: ShownColumn): Promise<void> {
		const turn = ++this.turn
		;[this.state, this.of, this.blank, this.wrong] = ['trying', 0, 0, '']
		;[this.all, this.tried] = [[], []]
		const label = table.columns.find((each) => each.id === table.label)
		const found = await ask(`/rows/${table.id}/anchors?`)
		if (found.ok) this.of = found.value.count
		let after = ''
		do {
			const answer = await ask(`/rows/${table.id}?limit=${PAGE}${after}`)
			if (turn !== this.turn) return
			if (!answer.ok) return this.end(answer.refusal.message)
			const rows = answer.value.rows.map((row) => ({
				row: row.id,
				label: label ? showCell(label, row.cells[cellKey(label.id)]) : '',
				address: String(row.cells[cellKey(column.id)] ?? '').trim()
			}))
			const filled = rows.filter((row) => row.address !== '')
			this.blank += rows.length - filled.length
			await this.each(filled, turn, async (row) => this.note({ ...row, ...(await tryAddress(row.address)) }))
			after = answer.value.next === null ? '' : `&after=${answer.value.next}`
		} while (after !== '' && turn === this.turn)
		if (turn === this.turn) this.end('')
	}

	/** Copies what opens into a column of photos, where that is still blank. */
	async copy(table: number, column: number): Promise<void> {
		const turn = ++this.turn
		this.state = 'copying'
		const opens = this.all.flatMap((each, at) => (each.outcome === 'opens' ? [{ ...each, at }] : []))
		await this.each(opens, turn, async ({ at, ...each }) => {
			const why = await copyInto({ table, column, row: each.row, address: each.address })
			this.all[at] = { ...each, outcome: why === '' ? 'copied' : 'not copied', why }
			this.show()
		})
		if (turn === this.turn) this.end('')
	}

	private end(wrong: string): void {
		this.wrong = wrong
		this.state = 'done'
		this.tried = [...this.all]
	}

	private note(tried: Tried): void {
		this.all.push(tried)
		this.show()
	}

	private show(): void {
		if (performance.now() - this.shownAt < SHOWN_EVERY_MS) return
		this.shownAt = performance.now()
		this.tried = [...this.all]
	}

	/** A few at a time, until it is stopped. */
	private async each<T>(items: readonly T[], turn: number, work: (item: T) => Promise<void>): Promise<void> {
		const waiting = [...items]
		const worker = async () => {
			for (let next = waiting.shift(); next !== undefined && turn === this.turn; next = waiting.shift())
				await work(next)
		}
		await Promise.all(Array.from({ length: AT_ONCE }, worker))
	}
}

async function tryAddress(address: string): Promise<Pick<Tried, 'outcome' | 'why'>> {
	if (!ADDRESS.test(address)) return { outcome: 'does not open', why: 'This is no address of a picture.' }
	const opens = await new Promise<boolean>((resolve) => {
		const picture = new Image()
		const late = setTimeout(() => resolve(false), LONGEST_MS)
		const end = (value: boolean) => {
			clearTimeout(late)
			resolve(value)
		}
		picture.referrerPolicy = 'no-referrer'
		picture.onload = () => end(picture.naturalWidth > 0)
		picture.onerror = () => end(false)
		picture.src = address
	})
	return opens
		? { outcome: 'opens', why: '' }
		: { outcome: 'does not open', why: 'Nothing answers there, or what does is no picture.' }
}

/** Why it could not be copied; empty where it was. */
async function copyInto(asked: { table: number; column: number; row: string; address: string }): Promise<string> {
	const body = await fetchPicture(asked.address)
	if (!body) return 'Its server lets it be shown, but not copied. Save it by hand and put it in.'
	const name = decodeURIComponent(/([^/?#]{1,80})(?:[?#].*)?$/.exec(asked.address)?.[1] ?? 'picture')
	const ready = await readyPhoto(
		new File([body], asked.address.startsWith('data:') ? 'picture' : name, { type: body.type })
	)
	if (!ready) return 'This browser cannot draw it.'
	const given = await giveFile(asked.column, ready.name, ready.body)
	if (!given.ok) return given.refusal.message
	const cells = [{ column: asked.column, value: { file: given.value.token }, was: null }]
	const put = await send('POST', `/rows/${asked.table}`, { kind: 'change', row: asked.row, cells })
	if (!put.ok) return put.refusal.message
	return put.value.conflicts.length > 0 ? 'There is a photo already.' : ''
}

async function fetchPicture(address: string): Promise<Blob | undefined> {
	if (address.startsWith('data:')) return fromDataAddress(address)
	try {
		const answer = await fetch(address, { mode: 'cors', credentials: 'omit', referrerPolicy: 'no-referrer' })
		return answer.ok ? await answer.blob() : undefined
	} catch {
		return undefined
	}
}
