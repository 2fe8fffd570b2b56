import type { LineOf } from '$lib/core/app/lines/all.ts'
import { isWebAddress } from '$lib/core/app/lines/video.ts'
import type { ShownAs } from './view.ts'

export const heading: ShownAs<LineOf<'heading'>> = {
	holdsSomething: () => false,
	show: ({ id, text }) => [{ id, kind: 'heading', text }]
}

export const picture: ShownAs<LineOf<'picture'>> = {
	holdsSomething: () => false,
	show: ({ id, picture, says, caption, width }) =>
		picture ? [{ id, kind: 'picture', sha: picture.sha, says, caption, width }] : []
}

export const video: ShownAs<LineOf<'video'>> = {
	holdsSomething: () => false,
	show({ id, title, film, address }) {
		// A draft may hold any; none but an address of the web is ever a link.
		const isSound = film !== null || isWebAddress(address)
		return isSound ? [{ id, kind: 'video', title, film: film?.sha ?? null, address: film ? '' : address }] : []
	}
}

export const divider: ShownAs<LineOf<'divider'>> = {
	holdsSomething: () => false,
	show: ({ id }) => [{ id, kind: 'divider' }]
}
