/** What an open screen asks while it is open. */
import type { ScreenReads, screenReadSchema } from '$lib/core/requests/screen-reads.ts'
import type { InApp } from '../apps/open-screen.ts'
import type { Room } from '../web/app-place.ts'
import type { Handlers } from './handlers.ts'

interface Where {
	readonly room: Pick<Room, 'read'>
	readonly place: Omit<InApp, 'line'>
}

export const READING: Handlers<typeof screenReadSchema, ScreenReads, Where> = {
	again: ({ kind: _kind, ...asked }, { room, place }) => room.read('again', { ...place, ...asked }),
	give: ({ line, row, held }, { room, place }) => room.read('give', { ...place, line, row, held })
}
