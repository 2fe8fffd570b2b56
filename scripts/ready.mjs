/** What the commands share: installing what is missing, building what is stale, running a step and passing its end on. */
import { spawnSync } from 'node:child_process'
import { existsSync, readdirSync, statSync } from 'node:fs'
import { join } from 'node:path'

export function run(command, args, options = {}) {
	const result = spawnSync(command, args, { stdio: 'inherit', ...options })
	if (result.error) {
		console.error(`Cannot run ${command}: ${result.error.message}`)
		return 1
	}
	return result.status ?? 1
}

/** Says something only when it fails. */
function runQuietly(command, args) {
	const { status, stdout, stderr } = spawnSync(command, args, { encoding: 'utf8', maxBuffer: 64 * 1024 * 1024 })
	if (status === 0) return
	console.error(stdout, stderr)
	process.exit(1)
}

/** Installs the packages of the lock file, if they are not there as it says. */
export function installPackages() {
	const stamp = 'node_modules/.package-lock.json'
	if (existsSync(stamp) && statSync(stamp).mtimeMs >= statSync('package-lock.json').mtimeMs - 1000) return
	console.log('Installing packages (some minutes on a fresh machine: the database driver is built from source)…')
	if (run('npm', ['ci', '--no-audit', '--no-fund']) !== 0) process.exit(1)
}

/** Builds the server and its threads, if a source is newer than the last build. */
export function build() {
	const built = ['build/server/index.js', 'build/threads/writer.js'].map((file) =>
		existsSync(file) ? statSync(file).mtimeMs : 0
	)
	const newest = Math.max(
		...['src', 'demo', 'static', 'package.json', 'svelte.config.js', 'vite.config.ts', 'vite.threads.config.ts'].map(
			newestIn
		)
	)
	if (Math.min(...built) > newest) return
	console.log('Building…')
	runQuietly('npm', ['run', 'build', '--silent'])
}

export function buildThreads() {
	runQuietly('npm', ['run', 'build:threads', '--silent'])
}

function newestIn(path) {
	const found = statSync(path)
	if (!found.isDirectory()) return found.mtimeMs
	return Math.max(0, ...readdirSync(path).map((name) => newestIn(join(path, name))))
}
