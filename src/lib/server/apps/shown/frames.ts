/** Lines that hold others: shown with what is left of these, and left out where nothing is. */
import type { LineOf, ScreenLine } from '$lib/core/app/lines/all.ts'
import type { ShownLine } from '$lib/core/requests/screens.ts'
import type { ShownAs, View } from './view.ts'

type FrameKind = 'buttons' | 'section' | 'fold' | 'beside' | 'tabs' | 'tab'
type Head<K extends FrameKind> = Omit<Extract<ShownLine, { kind: K }>, 'id' | 'lines'>

export const section = frame<'section'>(({ title }) => ({ kind: 'section', title }))
export const fold = frame<'fold'>(({ title }) => ({ kind: 'fold', title }))
export const beside = frame<'beside'>(({ as }) => ({ kind: 'beside', as }))
export const tabs = frame<'tabs'>(() => ({ kind: 'tabs' }))
export const buttons = frame<'buttons'>(() => ({ kind: 'buttons' }))
export const tab = frame<'tab'>(({ title }) => ({ kind: 'tab', title }))

function frame<K extends FrameKind>(head: (line: LineOf<K>) => Head<K>): ShownAs<LineOf<K>> {
	return {
		holdsSomething: (line, { inner }) => inner.holdsSomething(linesOf(line)),
		show(line, { inner }: View) {
			const lines = inner.show(linesOf(line))
			// Its own head and the lines in it make a shown line of its kind.
			const { id }: ScreenLine = line
			return lines.length === 0 ? [] : [{ id, ...head(line), lines } as unknown as ShownLine]
		}
	}
}

function linesOf(line: LineOf<FrameKind>): readonly ScreenLine[] {
	return line.lines
}
