/** Anywhere, so long as nothing of ours is there. */
const HERE = 'http://here.invalid'

/**
 * A path of this workspace to go on to, written as an address; anything that could lead elsewhere becomes the start page. Read
 * as a browser reads it, so that what it would take for another host (`/\\evil.example`) is seen as one.
 */
export function safePath(path: string | null): string {
	if (!path?.startsWith('/') || !URL.canParse(path, HERE)) return '/'
	const { origin, pathname, search, hash } = new URL(path, HERE)
	return origin === HERE && !pathname.startsWith('//') ? pathname + search + hash : '/'
}
