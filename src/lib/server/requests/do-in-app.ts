/** What staff do on a screen. */
import type { ScreenRequests, screenRequestSchema } from '$lib/core/requests/screens.ts'
import type { InApp } from '../apps/open-screen.ts'
import type { Room } from '../web/app-place.ts'
import type { Handlers } from './handlers.ts'

interface Where {
	/** The workspace, or a copy of it to try things on. */
	readonly room: Room
	readonly place: Omit<InApp, 'line'>
}

export const IN_APP: Handlers<typeof screenRequestSchema, ScreenRequests, Where> = {
	form: ({ line, cells, items, row, held }, { room, place }) =>
		room.write('sendForm', { ...place, line, cells, items, row, held }),
	change: ({ line, row, cells }, { room, place }) => room.write('changeRecord', { ...place, line, row, cells }),
	remove: ({ line, row }, { room, place }) => room.write('removeRecord', { ...place, line, row }),
	tick: ({ line, row, on }, { room, place }) => room.write('tick', { ...place, line, row, on }),
	tally: ({ line, row, less }, { room, place }) => room.write('addUp', { ...place, line, row, less }),
	put: ({ line, row }, { room, place }) => room.write('putValue', { ...place, line, row }),
	rate: ({ line, row, mark }, { room, place }) => room.write('rate', { ...place, line, row, mark }),
	press: ({ line, row }, { room, place }) => room.write('press', { ...place, line, row }),
	'keep search': ({ name, query, words }, { room, place: { app, screen, actor, now } }) =>
		room.write('keepSearch', { app, screen, actor, now, name, query, words }),
	'forget search': ({ id }, { room, place: { actor } }) => room.write('forgetSearch', { actor, id }),
	'take back': ({ entry }, { room, place: { actor, now } }) => room.write('takeBack', { entry, actor, now })
}
