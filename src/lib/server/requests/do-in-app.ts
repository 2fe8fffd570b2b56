/** What staff do on a screen. */
import { AppError } from '$lib/core/app-error.ts'
import type {
	Press,
	Pressed,
	PressedOne,
	ScreenRequests,
	screenRequestSchema
} from '$lib/core/requests/screen-doings.ts'
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
	scan: ({ line, code }, { room, place }) => room.write('scan', { ...place, line, code }),
	move: ({ line, row, to }, { room, place }) => room.write('moveCard', { ...place, line, row, to }),
	moves: ({ line, row }, { room, place }) => room.write('tryMoves', { ...place, line, row }),
	order: ({ line, row, to, held }, { room, place }) => room.write('moveStop', { ...place, line, row, to, held }),
	'press all': async ({ presses }, where) => {
		const done: PressedOne[] = []
		// One after the other, as they were chosen.
		for (const press of presses) done.push(await doneOrRefused(() => pressOne(press, where)))
		return done
	},
	'keep search': ({ name, query, words }, { room, place: { app, screen, actor, now } }) =>
		room.write('keepSearch', { app, screen, actor, now, name, query, words }),
	'forget search': ({ id }, { room, place: { actor } }) => room.write('forgetSearch', { actor, id }),
	'take back': ({ entry }, { room, place: { actor, now } }) => room.write('takeBack', { entry, actor, now })
}

function pressOne(press: Press, where: Where): Pressed | Promise<Pressed> {
	// By its kind each takes its own; for the union the compiler cannot tell.
	const handle = IN_APP[press.kind] as (press: Press, where: Where) => Pressed | Promise<Pressed>
	return handle(press, where)
}

async function doneOrRefused(work: () => Pressed | Promise<Pressed>): Promise<PressedOne> {
	try {
		return await work()
	} catch (thrown) {
		if (thrown instanceof AppError) return { refused: thrown.message }
		throw thrown
	}
}
