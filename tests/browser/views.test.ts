/**
 * Every main view at the widths that people have, in the light and in the dark, and as narrow as a desk is at 200 %: axe finds
 * nothing (WCAG 2.2 A and AA, as axe-core tests them), and nothing makes the page scroll sideways.
 */
import AxeBuilder from '@axe-core/playwright'
import { expect, test, type Page } from '@playwright/test'
import { signIn } from './people.ts'

const WAYS = [
	['at a desk', { width: 1280, height: 800 }, 'light'],
	['on a tablet, in the dark', { width: 820, height: 1180 }, 'dark'],
	['on a phone', { width: 390, height: 844 }, 'light'],
	['at 200 %, in the dark', { width: 640, height: 400 }, 'dark']
] as const

/** Who looks at what. What stands on the Bench is made for a desk. */
const STAFF: Readonly<Record<string, readonly string[]>> = {
	'Imke Dahl': ['/', '/app/1/due', '/app/1/all', '/app/1/inspect', '/today', '/me'],
	'Osric Vane': ['/app/1/overview', '/app/1/work'],
	'Petra Nankivell': ['/waiting', '/app/2'],
	'Wim Pascoe-Reyes': ['/app/3/stock', '/app/3/order', '/app/3/all'],
	'Corrie Ashdown': ['/app/4/now', '/app/4/in', '/app/4/visits'],
	'Ailith Brand': ['/people', '/logbook', '/workspace']
}
const BENCH = ['sources', 'tables', 'access', 'screens', 'routines', 'sign-offs', 'release', 'logbook', 'book']

async function setLook(page: Page, look: string): Promise<void> {
	await page.context().addCookies([{ name: 'tin_shed_paper', value: look, url: page.url() }])
}

async function lookAt(page: Page, path: string): Promise<string[]> {
	await page.goto(path)
	const { violations } = await new AxeBuilder({ page }).exclude('iframe').analyze()
	const wide = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)
	const found = violations.map(({ id, nodes }) => `${path} ${id}: ${nodes[0]?.html.slice(0, 160)}`)
	return wide > 0 ? [...found, `${path} is ${wide} px wider than the window`] : found
}

for (const [way, size, look] of WAYS)
	test(`what staff see ${way}`, async ({ browser }) => {
		test.slow()
		const found: string[] = []
		for (const [name, paths] of Object.entries(STAFF)) {
			const page = await signIn(browser, name, size)
			await setLook(page, look)
			for (const path of paths) found.push(...(await lookAt(page, path)))
			await page.context().close()
		}
		expect(found).toEqual([])
	})

for (const look of ['light', 'dark'])
	test(`what builders see in the ${look}`, async ({ browser }) => {
		test.slow()
		const page = await signIn(browser, 'Saskia Holm', { width: 1440, height: 900 })
		await setLook(page, look)
		const found: string[] = []
		for (const bay of BENCH) found.push(...(await lookAt(page, `/bench/1/${bay}`)))
		expect(found).toEqual([])
		await page.context().close()
	})

test('more contrast, in the light and in the dark', async ({ browser }) => {
	const page = await signIn(browser, 'Wim Pascoe-Reyes')
	const found: string[] = []
	for (const look of ['light.more', 'dark.more']) {
		await setLook(page, look)
		for (const path of ['/app/3/stock', '/app/3/order', '/me']) found.push(...(await lookAt(page, path)))
	}
	expect(found).toEqual([])
	await page.context().close()
})

test('what is seen before somebody is in', async ({ browser }) => {
	const found: string[] = []
	for (const [size, look] of [
		[{ width: 1280, height: 800 }, 'light'],
		[{ width: 390, height: 844 }, 'dark']
	] as const) {
		const context = await browser.newContext({ viewport: size })
		const page = await context.newPage()
		await page.goto('/sign-in')
		await setLook(page, look)
		for (const path of ['/sign-in', '/forgot', '/door/1', '/look']) found.push(...(await lookAt(page, path)))
		await context.close()
	}
	expect(found).toEqual([])
})
