/**
 * `npm test`: sets up what is missing, then format, lint, types, unit tests, build and browser tests. The last line says
 * how many passed and failed, and the exit code matches.
 */
import { spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs'
import { installPackages, run } from './ready.mjs'

installPackages()
installChromium()
rmSync('test-results', { recursive: true, force: true })
mkdirSync('test-results', { recursive: true })

let passed = 0
let failed = 0

/** A step that either holds or does not. */
function step(name, command, args) {
	console.log(`\n== ${name}`)
	if (run(command, args) === 0) passed++
	else {
		failed++
		console.log(`${name} failed.`)
	}
}

/** A step that counts its own tests in a report. */
function tests(name, command, args, count) {
	console.log(`\n== ${name}`)
	const status = run(command, args)
	const counted = count()
	passed += counted.passed
	failed += counted.failed
	// A runner that fell over without a failed test is a failure all the same.
	if (status !== 0 && counted.failed === 0) failed++
}

step('Kit', 'npx', ['--no-install', 'svelte-kit', 'sync'])
step('Format', 'npx', ['--no-install', 'prettier', '--check', '.'])
step('Lint', 'npx', ['--no-install', 'eslint', '.', '--max-warnings', '0'])
step('Types', 'npx', ['--no-install', 'svelte-check', '--tsconfig', './tsconfig.json', '--fail-on-warnings'])
step('Build', 'npm', ['run', 'build', '--silent'])
tests(
	'Unit tests',
	'npx',
	[
		'--no-install',
		'vitest',
		'run',
		'--reporter=default',
		'--reporter=json',
		'--outputFile.json=test-results/unit.json'
	],
	countUnit
)
tests('Browser tests', 'npx', ['--no-install', 'playwright', 'test'], countBrowser)

console.log(`\n${passed} passed, ${failed} failed`)
process.exit(failed > 0 ? 1 : 0)

function countUnit() {
	const report = readReport('test-results/unit.json')
	return { passed: report?.numPassedTests ?? 0, failed: report?.numFailedTests ?? 1 }
}

function countBrowser() {
	const stats = readReport('test-results/browser.json')?.stats
	// One that passes only when it is tried again has a race, and fails.
	return { passed: stats?.expected ?? 0, failed: stats ? stats.unexpected + stats.flaky : 1 }
}

function readReport(file) {
	return existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : undefined
}

/** Debian's Chromium drives the browser tests. */
function installChromium() {
	if (existsSync('/usr/bin/chromium')) return
	if (process.getuid?.() !== 0) {
		console.error('The browser tests need Debian’s Chromium. Install it as root: apt-get install chromium')
		process.exit(1)
	}
	console.log('Installing Chromium…')
	const options = { stdio: ['ignore', 'ignore', 'inherit'], env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } }
	if (
		spawnSync('apt-get', ['update', '-qq'], options).status !== 0 ||
		spawnSync('apt-get', ['install', '-y', '-qq', 'chromium'], options).status !== 0
	)
		process.exit(1)
}
