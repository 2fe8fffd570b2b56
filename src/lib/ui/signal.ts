/** Whether a page has a signal: cut in the Lookout, where a builder plays that there is none. */
let isCut = false

export function cutSignal(cut: boolean): void {
	isCut = cut
}

export function isSignalCut(): boolean {
	return isCut
}

/** Whether this page stands in a frame of the Lookout at a desk, which has neither the camera of a phone nor its place. */
export function isAtDesk(): boolean {
	return location.pathname.startsWith('/as/') && window.parent !== window
}
