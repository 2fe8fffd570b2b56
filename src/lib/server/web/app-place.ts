/** Which app and document a staff page means, and as whom it is read: one's own, or somebody's in the Lookout. */
import type { AppBase, StaffPage } from '$lib/core/requests/screens.ts'
import { MOST_HELD_TEXT } from '$lib/core/app/held-text.ts'
import { filtersSchema } from '$lib/core/query/filter.ts'
import type { Narrowing } from '$lib/core/requests/screens.ts'
import { error } from '@sveltejs/kit'
import { readQuery, textInAddress } from './address.ts'
import { forPage } from './answer.ts'
import type { AppDocument } from '$lib/core/app/document.ts'
import type { FileStore } from '../files/file-store.ts'
import type { Threads } from '../threads/threads.ts'
import type { Actor } from '../rights/rights-of-actor.ts'
import { getActor, getBuilder } from './signed-in.ts'

/** Where rows are read and written, with the files that are given in: the workspace, or a copy of it. */
export type Room = Pick<Threads, 'read' | 'write'> & { readonly files: FileStore }

export interface StaffPlace {
	readonly app: number
	readonly draft: boolean
	readonly actor: Actor
	/** What links of this app begin with. */
	readonly base: AppBase
}

/** Which app a page shows and as whom: a live one for whoever is signed in, or a draft in a Lookout of one's own. */
export function placeOf(locals: App.Locals, params: { app?: string; token?: string }): StaffPlace {
	if (params.token === undefined)
		return { app: Number(params.app), draft: false, actor: getActor(locals), base: `/app/${Number(params.app)}` }
	const looker = getBuilder(locals).person
	const look = locals.host.looks.find(params.token, looker)
	if (!look) error(404, 'This Lookout has ended. Open it again on the Bench.')
	return { app: look.app, draft: true, actor: { person: look.person, lookedAtBy: looker }, base: `/as/${params.token}` }
}

/** Where a place is read: the workspace, or the copy on which its looker has tried something. */
export async function roomOf(
	{ host }: App.Locals,
	{ app, actor }: Pick<StaffPlace, 'app' | 'actor'>
): Promise<{ readonly room: Room; readonly document?: AppDocument; readonly onCopy: boolean }> {
	const looker = actor.lookedAtBy
	if (looker === undefined) return { room: host, onCopy: false }
	const { version } = await host.read('workspace', undefined)
	const room = host.tries.find(looker, version)
	if (!room) return { room: host, onCopy: false }
	// Lines are still written while others try them: the draft comes from where it is written.
	const { document } = await host.read('draft', { app })
	return { room, document, onCopy: true }
}

/** Where somebody looked at may change something: a copy, made now if there is none. */
export async function roomToTry(
	{ host }: App.Locals,
	{ app, actor }: StaffPlace
): Promise<{ readonly room: Room; readonly document: AppDocument }> {
	const { version } = await host.read('workspace', undefined)
	const [room, { document }] = await Promise.all([
		host.tries.begin(actor.lookedAtBy ?? 0, version),
		host.read('draft', { app })
	])
	return { room, document }
}

/** A screen of an app with its frame; the first one, where none is asked for. */
export async function loadStaffPage(
	locals: App.Locals,
	place: StaffPlace,
	asked: { screen: string | undefined; url: URL }
): Promise<StaffPage> {
	const { app, draft, actor, base } = place
	const { room, document, onCopy } = await roomOf(locals, place)
	const query = readQuery(asked.url, { row: textInAddress.optional(), from: textInAddress.optional() })
	const { row = null, from = null } = query
	const narrowed = readNarrowed(asked.url)
	const held = readHeld(asked.url)
	const open = (more: { screen: string | undefined; row?: string; isAlone?: boolean }) =>
		room.read('screen', { ...{ app, draft, document, actor, now: locals.now, narrowed, held }, ...more })
	const main = await forPage(() => open({ screen: asked.screen, ...(row === null ? {} : { row }) }))
	const beside = from && row ? await open({ screen: from, isAlone: true }).catch(() => null) : null
	const lookingAs =
		actor.lookedAtBy === undefined ? null : ((await locals.host.read('person', { person: actor.person }))?.name ?? '')
	return { main, beside, row, from: beside && from, base, lookingAs, onCopy }
}

const PLAIN: Narrowing = { find: '', filters: [] }

/**
 * What the lists of a screen are narrowed down to: `f.LINE.COLUMN=value`, where no value means a blank cell; and by what they are
 * ordered: `s.LINE=COLUMN`, with a stroke behind it downwards.
 */
export function readNarrowed(url: URL): Record<string, Narrowing> {
	const found = new Map<string, Narrowing>()
	for (const [name, text] of url.searchParams) {
		const [, ordered] = /^s\.([^.]{1,40})$/.exec(name) ?? []
		const [, by, down] = /^(\d{1,9})(-?)$/.exec(text) ?? []
		if (ordered !== undefined && by !== undefined)
			found.set(ordered, { ...(found.get(ordered) ?? PLAIN), sort: { column: Number(by), descending: down === '-' } })
		const [, line, column] = /^f\.([^.]{1,40})\.(\d{1,9})$/.exec(name) ?? []
		if (line === undefined) continue
		const before = found.get(line) ?? PLAIN
		const filter = { column: Number(column), is: text === '' ? ('blank' as const) : ('equal' as const), text }
		const filters = filtersSchema.safeParse([...before.filters, filter])
		if (filters.success) found.set(line, { ...before, filters: filters.data })
	}
	// Whatever a line is called in an address is a name of its own here.
	return Object.fromEntries(found)
}

/** What a screen holds: `h.NAME=…`, a row by its id; words stand in the fragment, which comes with no page. */
export function readHeld(url: URL): Record<string, string> {
	const named = [...url.searchParams].filter(
		([name, id]) => /^h\.[^.]{1,60}$/.test(name) && id.length <= MOST_HELD_TEXT
	)
	return Object.fromEntries(named.map(([name, id]) => [name.slice(2), id]))
}
