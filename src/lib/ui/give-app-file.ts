/** Gives the server a picture or a film for an app. */
import type { TakenAppFile } from '$lib/core/requests/app-files.ts'
import { ask, type Sent } from './send.ts'

export function giveAppFile(kind: 'picture' | 'film', file: File): Promise<Sent<TakenAppFile>> {
	const init = { method: 'PUT', body: file, headers: { 'content-type': 'application/octet-stream' } }
	return ask(`/pictures?kind=${kind}&name=${encodeURIComponent(file.name)}`, init)
}
