/** A short sign of a text, by which both ends of a line tell whether they have the same; no secret, and no proof against forgery. */

/** Two 32-bit streams of multiply and fold, as cyrb53 has them (public domain, by bryc, 2018; from memory): 53 bits in base 36. */
export function fingerprint(text: string): string {
	let [high, low] = [0xdeadbeef, 0x41c6ce57]
	for (let i = 0; i < text.length; i++) {
		const unit = text.charCodeAt(i)
		high = Math.imul(high ^ unit, 2_654_435_761)
		low = Math.imul(low ^ unit, 1_597_334_677)
	}
	high = Math.imul(high ^ (high >>> 16), 2_246_822_507) ^ Math.imul(low ^ (low >>> 13), 3_266_489_909)
	low = Math.imul(low ^ (low >>> 16), 2_246_822_507) ^ Math.imul(high ^ (high >>> 13), 3_266_489_909)
	return (4_294_967_296 * (2_097_151 & low) + (high >>> 0)).toString(36)
}
