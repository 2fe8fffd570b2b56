/** Which file of the sources imports which, types too. */
import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { dirname, normalize } from 'node:path'
import ts from 'typescript'

/** Every file of ours under a folder, with those it imports, as paths from the project's root. */
export function readImports(folder: string): ReadonlyMap<string, readonly string[]> {
	const files = readdirSync(folder, { recursive: true, encoding: 'utf8' })
		.map((name) => `${folder}/${name}`)
		.filter((path) => /\.(ts|svelte)$/.test(path) && !path.endsWith('.test.ts'))
	return new Map(files.map((path) => [path, importsOf(path)]))
}

function importsOf(path: string): string[] {
	const text = readFileSync(path, 'utf8')
	const { importedFiles } = ts.preProcessFile(path.endsWith('.svelte') ? scriptsOf(text) : text)
	return importedFiles.flatMap(({ fileName }) => {
		const found = fileName.startsWith('$lib/')
			? `src/lib/${fileName.slice(5)}`
			: fileName.startsWith('.')
				? normalize(`${dirname(path)}/${fileName}`)
				: undefined
		return found !== undefined && existsSync(found) ? [found] : []
	})
}

const scriptsOf = (text: string) =>
	[...text.matchAll(/<script[^>]*>(.*?)<\/script>/gs)].map(([, script]) => script).join('\n')
