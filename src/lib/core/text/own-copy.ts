/**
 * The same text in memory of its own. What is cut from a long text keeps all of it alive: ten thousand short cells, kept
 * from ten thousand pieces of a file, kept the whole file (measured: 1.2 GB for an import of 80 MB).
 */
export function ownCopy(text: string): string {
	return new TextDecoder().decode(new TextEncoder().encode(text))
}
