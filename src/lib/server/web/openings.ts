/** Openings of screens, gathered for some seconds and written together, so that no page waits for its figure. */
import type { Opening } from '../apps/screen-openings.ts'

type Host = App.Locals['host']

const GATHERED_MS = 3_000
/** Whoever comes back to a screen within this is still there. */
const SAME_MS = 15 * 60_000
/** As many are remembered; of more the earliest are forgotten, and count anew. */
const MOST_KNOWN = 20_000

interface Gathering {
	waiting: Opening[]
	readonly last: Map<string, number>
}

const GATHERINGS = new WeakMap<Host, Gathering>()

/** `now`: epoch ms. */
export function noteOpening(host: Host, { app, screen, person }: Omit<Opening, 'times'>, now: number): void {
	const gathering = GATHERINGS.get(host) ?? { waiting: [], last: new Map<string, number>() }
	GATHERINGS.set(host, gathering)
	const { last, waiting } = gathering
	const key = `${app} ${screen} ${person}`
	const before = last.get(key)
	last.delete(key)
	last.set(key, now)
	if (last.size > MOST_KNOWN) for (const [oldest] of last) { last.delete(oldest); break } // prettier-ignore
	if (before !== undefined && now - before < SAME_MS) return
	waiting.push({ app, screen, person, times: 1 })
	if (waiting.length === 1) setTimeout(() => void write(host, gathering), GATHERED_MS).unref()
}

/** A figure that could not be written is lost, and nothing else with it. */
async function write(host: Host, gathering: Gathering): Promise<void> {
	const openings = gathering.waiting
	gathering.waiting = []
	await host.write('noteOpenings', { openings, now: Date.now() }).catch(() => undefined)
}
