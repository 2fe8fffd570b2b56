/** What staff pages bring along holds nothing of what only servers check with: a schema weighs as much as the rest of a page. */
import { existsSync, readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { expect, test } from 'vitest'

/** What is imported at once, not on use, and not as a type alone. */
const IMPORT = /^\s*(?:import|export)\s+(?!type\b)(?:[^'"]*?\bfrom\s+)?['"]([^'"]+)['"]/gm

function importsOf(file: string): string[] {
	const text = readFileSync(file, 'utf8')
	return [...text.matchAll(IMPORT)].flatMap(([whole, from = '']) => {
		// `import { type A, type B }` brings nothing.
		const named = /\{([^}]*)\}/.exec(whole)?.[1]?.split(',').map((each) => each.trim()).filter(Boolean) // prettier-ignore
		return named?.every((each) => each.startsWith('type ')) ? [] : [from]
	})
}

function placeOf(from: string, file: string): string | undefined {
	const place = from.startsWith('$lib/') ? join('src/lib', from.slice('$lib/'.length)) : join(dirname(file), from)
	return from.startsWith('.') || from.startsWith('$lib/') ? (existsSync(place) ? place : undefined) : undefined
}

test('no schema is among the scripts of a staff page', () => {
	const way = new Map<string, string>()
	const waiting = ['src/lib/ui/staff/StaffApp.svelte', 'src/lib/ui/lines/list/ListLine.svelte', 'src/lib/ui/lines/form/FormLine.svelte', 'src/lib/ui/lines/record/RecordLine.svelte'] // prettier-ignore
	for (const file of waiting) way.set(file, file)
	const found: string[] = []
	for (let file = waiting.pop(); file !== undefined; file = waiting.pop()) {
		for (const from of importsOf(file)) {
			if (from === 'zod') found.push(way.get(file) ?? file)
			const place = placeOf(from, file)
			if (place === undefined || way.has(place)) continue
			way.set(place, `${way.get(file)} → ${place}`)
			waiting.push(place)
		}
	}
	expect(way.size).toBeGreaterThan(40)
	expect(found).toEqual([])
})
