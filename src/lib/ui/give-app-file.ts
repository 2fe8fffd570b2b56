/** Gives the server a picture, a film or the ground of a map for an app. */
import type { TakenAppFile } from '$lib/core/requests/app-files.ts'
import { ask, type Sent } from './send.ts'

export function giveAppFile(kind: 'picture' | 'film' | 'ground', file: File): Promise<Sent<TakenAppFile>> {
	const init = { method: 'PUT', body: file, headers: { 'content-type': 'application/octet-stream' } }
	return ask(`/pictures?kind=${kind}&name=${encodeURIComponent(file.name)}`, init)
}
