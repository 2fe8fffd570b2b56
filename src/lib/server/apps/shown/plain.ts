import type { LineOf } from '$lib/core/app/lines/all.ts'
import type { ShownAs } from './view.ts'

export const heading: ShownAs<LineOf<'heading'>> = {
	holdsSomething: () => false,
	show: ({ id, text }) => [{ id, kind: 'heading', text }]
}

export const divider: ShownAs<LineOf<'divider'>> = {
	holdsSomething: () => false,
	show: ({ id }) => [{ id, kind: 'divider' }]
}
