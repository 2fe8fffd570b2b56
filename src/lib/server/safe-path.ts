/** A path of this workspace to go on to; anything that could lead elsewhere becomes the start page. */
export function safePath(path: string | null): string {
	return path && /^\/(?![/\\])[^\s\\]*$/.test(path) ? path : '/'
}
