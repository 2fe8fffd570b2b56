/** Openings of screens, gathered for some seconds and written together, so that no page waits for its figure. */
import type { Opening } from '../apps/screen-openings.ts'

type Writing = Pick<App.Locals['host'], 'write'>

const GATHERED_MS = 3_000
/** Whoever comes back to a screen within this is still there. */
const SAME_MS = 15 * 60_000
/** As many are remembered; of more the earliest are forgotten, and count anew. */
const MOST_KNOWN = 20_000

// Of the process: what requests are given to ask with is made for each of them.
let waiting: Opening[] = []
const last = new Map<string, number>()

/** `now`: epoch ms. */
export function noteOpening(host: Writing, { app, screen, person }: Omit<Opening, 'times'>, now: number): void {
	const key = `${app} ${screen} ${person}`
	const before = last.get(key)
	// The latest stands last.
	last.delete(key)
	last.set(key, now)
	const [oldest] = last.keys()
	if (last.size > MOST_KNOWN && oldest !== undefined) last.delete(oldest)
	if (before !== undefined && now - before < SAME_MS) return
	waiting.push({ app, screen, person, times: 1 })
	if (waiting.length === 1) setTimeout(() => void write(host), GATHERED_MS).unref()
}

/** A figure that could not be written is lost, and nothing else with it. */
async function write(host: Writing): Promise<void> {
	const openings = waiting
	waiting = []
	await host.write('noteOpenings', { openings, now: Date.now() }).catch(() => undefined)
}
