/**
 * What a builder and a diver wait for, in headless Chromium against the built server: how soon a frame of the Lookout shows an
 * edit of a screen of fifty lines, and how soon a list answers a press on a processor four times slower than this one.
 */
import type { Page } from '@playwright/test'
import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { served, signedIn, type Served } from './served.ts'
import { median } from './timing.ts'

const LINES = 50
const RUNS = 15
const SLOWER = 4

export interface InBrowser {
	/** In ms: from the edit until the frame shows it; and what saving an edit takes by itself, by the same page. */
	readonly lookoutMs: number
	readonly saveMs: number
	/** In ms: from asking for the page until a press on its list is answered; slowed down, and as it is. */
	readonly slowMs: number
	readonly fastMs: number
}

export async function measureInBrowser(folder: string, scripts: string): Promise<InBrowser> {
	const workspace = join(folder, 'in-browser')
	spawnSync(process.execPath, [join(scripts, 'make-demo.js'), workspace], { stdio: 'inherit' })
	return served({ workspace, scripts }, async (place) => {
		const lookout = await followEdits(place)
		const list = await openList(place)
		return { ...lookout, ...list }
	})
}

async function followEdits(place: Served): Promise<Pick<InBrowser, 'lookoutMs' | 'saveMs'>> {
	const page = await signedIn(place, 'Saskia Holm', { width: 1440, height: 900 })
	await page.goto(`${place.origin}/bench/3/screens?screen=stock`)
	const box = page.getByLabel('Add a line by typing what it should do')
	const there = await page.locator('.ledger [data-line]').count()
	for (let i = there; i < LINES; i++) {
		await box.fill(i % 3 === 0 ? 'Divider' : `Text Line ${i} of what is written here, {me.Name}`)
		await box.press('Enter')
	}
	const frame = page.frameLocator('iframe').first()
	const heading = page.getByRole('button', { name: 'On the shelves' })
	await frame.getByRole('heading', { name: 'On the shelves' }).waitFor()
	await heading.click()
	const words = page.getByRole('textbox', { name: 'words' })
	const took: number[] = []
	const saved: number[] = []
	for (let i = 0; i < RUNS; i++) {
		await words.fill(`On the shelves, ${i}`)
		const isSaved = page.waitForResponse((response) => response.request().method() === 'PATCH')
		const started = performance.now()
		await words.dispatchEvent('change')
		await isSaved
		saved.push(performance.now() - started)
		await frame.getByRole('heading', { name: `On the shelves, ${i}`, exact: true }).waitFor()
		took.push(performance.now() - started)
	}
	await page.context().close()
	// The first is not counted: scripts are being compiled.
	return { lookoutMs: median(took.slice(1)), saveMs: median(saved.slice(1)) }
}

async function openList(place: Served): Promise<Pick<InBrowser, 'slowMs' | 'fastMs'>> {
	const page = await signedIn(place, 'Wim Pascoe-Reyes', { width: 390, height: 844 })
	const session = await page.context().newCDPSession(page)
	const [fast, slow]: [number[], number[]] = [[], []]
	for (let i = 0; i < RUNS; i++) {
		await session.send('Emulation.setCPUThrottlingRate', { rate: 1 })
		fast.push(await untilAnswered(page, `${place.origin}/app/3/stock`))
		await session.send('Emulation.setCPUThrottlingRate', { rate: SLOWER })
		slow.push(await untilAnswered(page, `${place.origin}/app/3/stock`))
	}
	await page.context().close()
	return { fastMs: median(fast.slice(1)), slowMs: median(slow.slice(1)) }
}

/** A press that comes before the page has come to life is kept, and answered as soon as it can be. */
async function untilAnswered(page: Page, address: string): Promise<number> {
	const started = performance.now()
	await page.goto(address, { waitUntil: 'commit' })
	await page.getByRole('button', { name: 'Choose several' }).click()
	await page.getByText(/ of \d+ chosen/).waitFor()
	return performance.now() - started
}
