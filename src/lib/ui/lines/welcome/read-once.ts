/** Which welcomes somebody has read on this device. Where nothing can be kept, they are shown again. */

export function hasRead(key: string): boolean {
	try {
		return localStorage.getItem(nameOf(key)) !== null
	} catch {
		return false
	}
}

export function noteRead(key: string): void {
	try {
		localStorage.setItem(nameOf(key), '1')
	} catch {
		// A device that keeps nothing shows them the next time.
	}
}

function nameOf(key: string): string {
	return `welcome ${key}`
}
