/** Lines that hold others and say how these stand: in a section, side by side, folded away, on tabs, buttons in a row. */
import { z } from 'zod'
import { mistake, remark } from '../../document/findings.ts'
import { words } from '../../document/parts.ts'
import { PROPORTIONS } from '../../sentence/slots/all.ts'
import { PLAIN_LINE, type LineEntry } from './entry.ts'
import { checkWhom, lineParts, withWhom } from './parts.ts'
import type { TreeLine } from './tree.ts'

export const sectionSchema = z.object({ ...lineParts, kind: z.literal('section'), title: words })
export const foldSchema = z.object({ ...lineParts, kind: z.literal('fold'), title: words })
export const besideSchema = z.object({
	...lineParts,
	kind: z.literal('beside'),
	as: z.enum(PROPORTIONS)
})
export const tabsSchema = z.object({ ...lineParts, kind: z.literal('tabs') })
export const buttonsSchema = z.object({ ...lineParts, kind: z.literal('buttons') })
export const tabSchema = z.object({ ...lineParts, kind: z.literal('tab'), title: words })

type Frame<S extends z.ZodType> = z.infer<S> & { readonly lines: readonly TreeLine[] }
export type SectionLine = Frame<typeof sectionSchema>
export type FoldLine = Frame<typeof foldSchema>
export type BesideLine = Frame<typeof besideSchema>
export type TabsLine = Frame<typeof tabsSchema>
export type ButtonsLine = Frame<typeof buttonsSchema>
export type TabLine = Frame<typeof tabSchema>

const EMPTY = 'It holds no line yet. Put one after it, and move it in with Alt and the arrow to the right.'

export const section: LineEntry<SectionLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'section',
			about: 'A part of the screen with its title; it is left out for whom it holds nothing',
			parts: withWhom('Section ', { key: 'title', type: 'text', title: 'title' })
		},
		blank: { kind: 'section', title: '', who: [], lines: [] }
	},
	holds: 'parts',
	check: (line, around) => [...checkWhom(line, around), ...(line.lines.length === 0 ? remark(EMPTY) : [])]
}

export const fold: LineEntry<FoldLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'fold',
			about: 'Lines that are folded away until somebody opens them',
			parts: withWhom('Fold ', { key: 'title', type: 'text', title: 'title' })
		},
		blank: { kind: 'fold', title: '', who: [], lines: [] }
	},
	holds: 'parts',
	check: (line, around) => [
		...checkWhom(line, around),
		...(line.title.trim() === '' ? mistake('A fold needs a title: without one nobody knows what it holds.') : []),
		...(line.lines.length === 0 ? remark(EMPTY) : [])
	]
}

export const beside: LineEntry<BesideLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'beside',
			about: 'Lines beside one another where there is room, one under the other on a phone',
			parts: withWhom('Side by side, as ', { key: 'as', type: 'proportions', title: 'Proportions' })
		},
		blank: { kind: 'beside', as: '1 to 1', who: [], lines: [] }
	},
	holds: 'parts',
	check: (line, around) => [...checkWhom(line, around), ...(line.lines.length === 0 ? remark(EMPTY) : [])]
}

export const buttons: LineEntry<ButtonsLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'buttons',
			about: 'Buttons beside one another, as many as there is room for; with pictures they stand as tiles',
			parts: withWhom('Row of buttons')
		},
		blank: { kind: 'buttons', who: [], lines: [] }
	},
	holds: ['button'],
	check: (line, around) => [
		...checkWhom(line, around),
		...(line.lines.length === 0 ? remark('It holds no button yet. Add one after it.') : [])
	]
}

export const tabs: LineEntry<TabsLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'tabs',
			about: 'Tabs, one shown at a time; add a line "Tab" to it for each',
			parts: withWhom('Tabs')
		},
		blank: { kind: 'tabs', who: [], lines: [] }
	},
	holds: ['tab'],
	check: (line, around) => [
		...checkWhom(line, around),
		...(line.lines.length === 0 ? mistake('It has no tab yet. Add a line "Tab" after it.') : [])
	]
}

export const tab: LineEntry<TabLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'tab',
			about: 'One of the tabs, with its lines',
			parts: withWhom('Tab ', { key: 'title', type: 'text', title: 'title' })
		},
		blank: { kind: 'tab', title: '', who: [], lines: [] }
	},
	holds: 'parts',
	isInner: true,
	check: (line, around) => [
		...checkWhom(line, around),
		...(line.title.trim() === '' ? mistake('A tab needs a title.') : []),
		...(line.lines.length === 0 ? remark(EMPTY) : [])
	]
}
