/** What a form asks while somebody fills it in. */
import type { FormRequests, formRequestSchema } from '$lib/core/requests/forms.ts'
import type { InApp } from '../apps/open-screen.ts'
import type { Room } from '../web/app-place.ts'
import type { Handlers } from './handlers.ts'

interface Where {
	readonly room: Room
	readonly place: Omit<InApp, 'line'>
}

export const FILLING: Handlers<typeof formRequestSchema, FormRequests, Where> = {
	judge: (asked, { room, place }) => room.read('judgeFilled', { ...place, ...asked }),
	choices: (asked, { room, place }) => room.read('offerChoices', { ...place, ...asked })
}
