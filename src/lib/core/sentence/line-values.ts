import type { LineValue } from './types.ts'

/** The value at a slot's key; `start.where` goes into the object at `start`. */
export function readSlot(line: LineValue, key: string): unknown {
	let value: unknown = line
	for (const part of key.split('.')) value = (value as Record<string, unknown> | undefined | null)?.[part]
	return value
}

/** The line with another value at a slot's key; the line itself stays as it is. */
export function writeSlot<T extends object>(line: T, key: string, value: unknown): T {
	const [first = '', ...rest] = key.split('.')
	const inner = (line as Record<string, unknown>)[first]
	const next = rest.length === 0 ? value : writeSlot((inner ?? {}) as object, rest.join('.'), value)
	return { ...line, [first]: next }
}
