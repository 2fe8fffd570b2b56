/** A line that is dragged by its number: which gap it hangs over and how deep, by where the pointer is. */
import { gapsFor, nearestDrop, type Drop, type Gap } from '$lib/core/app/lines/drop-line.ts'
import type { MayHold, TreeLine } from '$lib/core/app/lines/tree.ts'

/** How far apart levels are drawn, and how far the pointer goes for one, in px. */
export const LEVEL = 22
/** A press that moves less than this is none of a drag. */
const SLACK = 4

interface Over {
	readonly drop: Drop
	/** Where the gap is, in px from the top of the ledger. */
	readonly top: number
}

export class DragLine {
	/** The line that is dragged, once it is. */
	id = $state('')
	over = $state.raw<Over | undefined>()
	private from: { readonly x: number; readonly y: number; readonly level: number; readonly id: string } | undefined
	private gaps: readonly Gap[] = []

	/** `level`: how deep the line stands that is taken hold of. */
	begin({ clientX, clientY }: PointerEvent, id: string, level: number): void {
		this.from = { x: clientX, y: clientY, level, id }
	}

	/** `ledger` holds an element for each line, which says its id as `data-line`. */
	move({ clientX, clientY }: PointerEvent, ledger: HTMLElement, lines: readonly TreeLine[], mayHold: MayHold): void {
		const { from } = this
		if (!from) return
		if (this.id === '') {
			if (Math.hypot(clientX - from.x, clientY - from.y) < SLACK) return
			this.gaps = gapsFor(lines, from.id, mayHold)
			this.id = from.id
		}
		const top = ledger.getBoundingClientRect().top
		const level = from.level + Math.round((clientX - from.x) / LEVEL)
		const places = this.gaps.flatMap((gap) => {
			const drop = nearestDrop(gap, level)
			const line = gap.above && ledger.querySelector(`[data-line="${CSS.escape(gap.above)}"]`)
			const bottom = line ? line.getBoundingClientRect().bottom : firstTop(ledger)
			return drop ? [{ drop, top: bottom - top, away: Math.abs(bottom - clientY) }] : []
		})
		const [nearest] = places.toSorted((one, other) => one.away - other.away)
		this.over = nearest
	}

	/** Where it was let go; undefined where it was not dragged, or may not stand there. */
	end(): { readonly id: string; readonly drop: Drop } | undefined {
		const { id, over } = this
		this.cancel()
		return id !== '' && over ? { id, drop: over.drop } : undefined
	}

	cancel(): void {
		this.from = undefined
		this.id = ''
		this.over = undefined
	}
}

function firstTop(ledger: HTMLElement): number {
	return ledger.querySelector('[data-line]')?.getBoundingClientRect().top ?? 0
}
