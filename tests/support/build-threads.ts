/** Builds the threads and commands that unit tests run, if a source is newer than they are. */
import { existsSync, readdirSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { build } from 'vite'

const SOURCES = ['src/lib', 'demo', 'measure', 'tests/support', 'vite.threads.config.ts']

export default async function buildThreads(): Promise<void> {
	const built = 'build/threads/writer.js'
	if (existsSync(built) && statSync(built).mtimeMs > Math.max(...SOURCES.map(newestIn))) return
	await build({ configFile: 'vite.threads.config.ts', logLevel: 'error' })
}

function newestIn(path: string): number {
	const found = statSync(path)
	if (!found.isDirectory()) return found.mtimeMs
	return Math.max(0, ...readdirSync(path).map((name) => newestIn(join(path, name))))
}
