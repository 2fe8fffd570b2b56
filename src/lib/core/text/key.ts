/**
 * The key by which text is compared: NFC, lower case, final sigma as sigma.
 *
 * Equality, order and uniqueness use it in both lives of a formula, so that an index over the stored key serves them.
 * It is no natural order ("a10" stands before "a2"); that is a separate choice.
 */
export function textKey(text: string): string {
	// Most text is plain ASCII, for which the general way takes ten times as long.
	if (isPlain(text)) return text.toLowerCase()
	return text.normalize('NFC').toLowerCase().replaceAll('ς', 'σ')
}

/** Names are found without regard to case or to how many spaces stand between words. */
export function nameKey(name: string): string {
	return textKey(name).replace(/\s+/g, ' ').trim()
}

/** Whether a text is ASCII throughout; then SQLite's own `lower` gives its key too. */
export function isPlain(text: string): boolean {
	return PLAIN.test(text)
}

// eslint-disable-next-line no-control-regex -- all of ASCII is meant
const PLAIN = /^[\x00-\x7f]*$/

/** Orders two texts by code point, as SQLite orders UTF-8 bytes. JavaScript's `<` orders UTF-16 units, which differs. */
export function compareCodePoints(a: string, b: string): number {
	const length = Math.min(a.length, b.length)
	for (let i = 0; i < length; i++) {
		const x = a.charCodeAt(i)
		const y = b.charCodeAt(i)
		if (x !== y) return toCodePointOrder(x) - toCodePointOrder(y)
	}
	return a.length - b.length
}

/** Surrogates stand for code points above every other unit, so they are moved behind them. */
function toCodePointOrder(unit: number): number {
	if (unit >= 0xe000) return unit - 0x800
	return unit >= 0xd800 ? unit + 0x2000 : unit
}
