/** The coasts of the world as the ground of a map: cut to where the rows of a table lie, and kept as a file of the app. */
import { readFile } from 'node:fs/promises'
import { createRequire } from 'node:module'
import { boxAround, coastsWithin, finenessFor } from '$lib/core/map/coasts.ts'
import type { TakenAppFile } from '$lib/core/requests/app-files.ts'
import type { Threads } from '../threads/threads.ts'
import type { Actor } from '../rights/rights-of-actor.ts'
import { takeAppFile } from './app-files.ts'

const require = createRequire(import.meta.url)

export async function takeCoasts(
	folder: string,
	host: Pick<Threads, 'read' | 'write' | 'now'>,
	{ table, actor }: { readonly table: number; readonly actor: Actor }
): Promise<TakenAppFile> {
	const box = boxAround(await host.read('placesIn', { table, actor, now: host.now() }))
	const path = require.resolve(`world-atlas/land-${finenessFor(box)}.json`)
	// The package holds nothing else.
	const world = JSON.parse(await readFile(path, 'utf8')) as Parameters<typeof coastsWithin>[0]
	const body = new Blob([JSON.stringify(coastsWithin(world, box))]).stream()
	return takeAppFile(folder, host, { kind: 'ground', name: 'Coasts of the world', body, actor })
}
