import type { ScanLine } from '$lib/core/app/lines/scan.ts'
import { mayPossiblyRun, routineOf } from './button.ts'
import type { ShownAs, View } from './view.ts'

/** Offered to who could do on some row what it does. */
export const scan: ShownAs<ScanLine> = {
	holdsSomething: isOffered,
	show: (line, view) => (isOffered(line, view) ? [{ id: line.id, kind: 'scan', label: line.label }] : [])
}

function isOffered({ routine: named }: ScanLine, view: View): boolean {
	const routine = routineOf(named, view)
	return routine?.start.kind === 'scan' && mayPossiblyRun(routine, view)
}
