/** What builders ask about looks at their drafts: to begin one, and to have it followed on a device. */
import QRCode from 'qrcode'
import { AppError } from '$lib/core/app-error.ts'
import type { LookRequests, lookSchema } from '$lib/core/requests/looks.ts'
import type { Looks } from '../people/looks.ts'
import type { Phones } from '../people/phones.ts'
import type { Threads } from '../threads/threads.ts'
import type { Handlers } from './handlers.ts'

interface Looking {
	readonly host: Pick<Threads, 'read'> & { readonly looks: Looks; readonly phones: Phones; readonly origin: string }
	readonly looker: number
	/** Of the session that asks. */
	readonly sessionHash: string
}

export const LOOKING: Handlers<typeof lookSchema, LookRequests, Looking> = {
	async begin({ app, person }, { host, looker }) {
		if (!(await host.read('person', { person }))) throw new AppError('not_found', 'This person is not here.')
		return { token: host.looks.begin({ looker, person, app }) }
	},
	async offer({ token }, { host, looker, sessionHash }) {
		const look = host.looks.find(token, looker)
		if (!look) throw new AppError('not_found', 'This Lookout has ended. Open it again on the Bench.')
		const name = (await host.read('person', { person: look.person }))?.name ?? ''
		const { id, code, until } = host.phones.offer({ looker, look: token, sessionHash, name })
		const address = `${host.origin}/look/${code}`
		const picture = await QRCode.toString(address, { type: 'svg', margin: 2 })
		return { id, code: `${code.slice(0, 5)} ${code.slice(5)}`, address, picture, until }
	},
	list: async (_asked, { host, looker }) => host.phones.list(looker),
	end: async ({ id }, { host, looker }) => host.phones.end(id, looker)
}
