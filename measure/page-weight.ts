/** What a page of staff brings along: its scripts and styles, gzipped, as the build's own list of them says. */
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'

const OUTPUT = '.svelte-kit/output/client'
const NODES = '.svelte-kit/generated/client-optimized/nodes'

interface Chunk {
	readonly file: string
	readonly src?: string
	readonly css?: readonly string[]
	readonly imports?: readonly string[]
	readonly dynamicImports?: readonly string[]
}

export interface PageWeight {
	/** In bytes, gzipped: what every staff page brings, and what each kind of line adds to that where it stands alone. */
	readonly frame: number
	readonly kinds: Readonly<Record<string, number>>
	readonly styles: number
	/** What comes with the first use of something. */
	readonly later: Readonly<Record<string, number>>
}

export function weighStaffPage(): PageWeight {
	// As Vite documents it (`build.manifest`).
	const chunks = JSON.parse(readFileSync(join(OUTPUT, '.vite/manifest.json'), 'utf8')) as Record<string, Chunk>
	const nodes = readdirSync(NODES).filter((name) =>
		/routes\/(\+layout\.svelte|app\/\[app\]\/\[\[screen\]\]\/\+page\.svelte)/.test(
			readFileSync(join(NODES, name), 'utf8')
		)
	)
	const isOfPage = (key: string) =>
		/client-optimized\/app\.js$|runtime\/client\/entry\.js$/.test(key) || nodes.some((name) => key.endsWith(`nodes/${name}`)) // prettier-ignore
	const frame = closure(chunks, Object.keys(chunks).filter(isOfPage))
	const adds = (key: string) =>
		weigh(
			chunks,
			[...closure(chunks, [key])].filter((each) => !frame.has(each))
		)
	const lines = Object.keys(chunks).filter((key) => /src\/lib\/ui\/lines\/.*\.svelte$/.test(key))
	const isKind = (key: string) => /(Line|Alone|ListAs\w+)\.svelte$/.test(key)
	const [kinds, inner] = [lines.filter(isKind), lines.filter((key) => !isKind(key))]
	const later = [...inner, ...Object.keys(chunks).filter((key) => /src\/lib\/ui\/(cells|find)\/.*\.svelte$/.test(key))]
	return {
		frame: weigh(chunks, [...frame]),
		kinds: Object.fromEntries(kinds.map((key) => [nameOf(key), adds(key)])),
		styles: stylesOf(chunks, [...frame, ...kinds]),
		later: Object.fromEntries(later.map((key) => [nameOf(key), adds(key)]))
	}
}

/** What is loaded with some chunks: all that they import, and what that imports. */
function closure(chunks: Readonly<Record<string, Chunk>>, keys: readonly string[]): Set<string> {
	const found = new Set<string>()
	const visit = (key: string): void => {
		if (found.has(key)) return
		found.add(key)
		for (const each of chunks[key]?.imports ?? []) visit(each)
	}
	for (const key of keys) visit(key)
	return found
}

function weigh(chunks: Readonly<Record<string, Chunk>>, keys: readonly string[]): number {
	return keys.reduce((sum, key) => sum + gzipped(chunks[key]?.file), 0)
}

function stylesOf(chunks: Readonly<Record<string, Chunk>>, keys: readonly string[]): number {
	const files = new Set(keys.flatMap((key) => chunks[key]?.css ?? []))
	return [...files].reduce((sum, file) => sum + gzipped(file), 0)
}

function gzipped(file: string | undefined): number {
	return file === undefined ? 0 : gzipSync(readFileSync(join(OUTPUT, file))).length
}

function nameOf(key: string): string {
	return /(\w+)\.svelte$/.exec(key)?.[1] ?? key
}
