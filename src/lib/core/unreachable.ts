/** Marks a branch that the types rule out; names the broken invariant if it is reached all the same. */
export function unreachable(value: never, where: string): never {
	throw new Error(`Expected "${where}" to cover every kind, got ${JSON.stringify(value)}`)
}
