/**
 * The first rows of a grid on screen, in headless Chromium against the built server: a table of a million rows beside one of
 * a thousand, opened in turns.
 */
import type { Page } from '@playwright/test'
import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { openHost } from '../src/lib/server/host/host.ts'
import { bringInSoundings, writeCsv } from './import.ts'
import { served, signedIn } from './served.ts'
import { median } from './timing.ts'

const LARGE = 1_000_000
const SMALL = 1_000
const RUNS = 9

export interface MeasuredGrid {
	readonly largeMs: number
	readonly smallMs: number
	readonly frames: Frames
}

/** What was drawn while a grid of a million rows was scrolled, a turn of the wheel with each frame. */
export interface Frames {
	readonly aSecond: number
	/** How many of a hundred frames came more than 1/40 of a second after the one before. */
	readonly lateOfHundred: number
}

export async function measureGrid(folder: string, scripts: string): Promise<MeasuredGrid> {
	const workspace = join(folder, 'grid')
	spawnSync(process.execPath, [join(scripts, 'make-demo.js'), workspace], { stdio: 'inherit' })
	const tables = await fill(folder, workspace, scripts)
	return served({ workspace, scripts }, async (place) => {
		const { origin } = place
		const page = await signedIn(place, 'Saskia Holm', { width: 1280, height: 800 })
		const [large, small]: [number[], number[]] = [[], []]
		for (let i = 0; i < RUNS; i++) {
			large.push(await firstRows(page, `${origin}/bench/1/tables?table=${tables.large}`))
			small.push(await firstRows(page, `${origin}/bench/1/tables?table=${tables.small}`))
		}
		// The first of each is not timed: scripts are being compiled.
		await firstRows(page, `${origin}/bench/1/tables?table=${tables.large}`)
		const frames = await scrollThrough(page)
		return { largeMs: median(large.slice(1)), smallMs: median(small.slice(1)), frames }
	})
}

async function fill(folder: string, workspace: string, scripts: string): Promise<{ large: number; small: number }> {
	const host = await openHost({ folder: workspace, scripts, origin: 'http://127.0.0.1:1' })
	const person = (await host.read('people', undefined)).find((each) => each.name === 'Saskia Holm')?.person ?? 0
	const bring = async (rows: number, name: string): Promise<number> => {
		const csv = join(folder, `${name}.csv`)
		writeCsv(csv, rows)
		await bringInSoundings(host, { csv, person, name, editing: false })
		const { tables } = await host.read('bench', { actor: { person }, now: host.now() })
		return tables.find((table) => table.name === name)?.id ?? 0
	}
	const tables = { large: await bring(LARGE, 'Many soundings'), small: await bring(SMALL, 'Few soundings') }
	// So that nothing else is going on when the grid is opened.
	while ((await host.write('tendIndexes', { wanted: [] })) !== 'done');
	await host.close()
	return tables
}

/** From asking for the page until the cells of its first row stand there. */
async function firstRows(page: Page, address: string): Promise<number> {
	const started = performance.now()
	await page.goto(address, { waitUntil: 'commit' })
	await page
		.getByRole('gridcell', { name: 'S-0', exact: true })
		.or(page.getByRole('gridcell').first())
		.first()
		.waitFor()
	return performance.now() - started
}

const SCROLLED_MS = 4_000

async function scrollThrough(page: Page): Promise<Frames> {
	// Once the count and the places to jump to are known.
	await page.getByText('1,000,000 rows').waitFor()
	const gaps = await page.evaluate(async (length) => {
		const grid = document.querySelector('[role=grid]')
		const gaps: number[] = []
		const begun = performance.now()
		let last = begun
		await new Promise<void>((done) => {
			const step = (now: number) => {
				gaps.push(now - last)
				last = now
				grid?.dispatchEvent(new WheelEvent('wheel', { deltaY: 120, bubbles: true, cancelable: true }))
				if (now - begun < length) requestAnimationFrame(step)
				else done()
			}
			requestAnimationFrame(step)
		})
		return gaps.slice(1)
	}, SCROLLED_MS)
	await refuseBlank(page)
	const late = gaps.filter((gap) => gap > 25).length
	return {
		aSecond: (1000 * gaps.length) / gaps.reduce((sum, gap) => sum + gap, 0),
		lateOfHundred: (100 * late) / gaps.length
	}
}

/** Frames that show nothing are no feat: rows must stand where they are looked at. */
async function refuseBlank(page: Page): Promise<void> {
	const middle = page
		.getByRole('grid')
		.getByRole('gridcell')
		.filter({ hasText: /^S-\d+$/ })
		.nth(10)
	await middle.waitFor()
	const at = await middle.boundingBox()
	if (!at || at.y < 200 || at.y > 700) throw new Error(`Expected rows in sight after scrolling, got them at "${at?.y}"`)
}
