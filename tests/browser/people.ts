import type { Browser, Page } from '@playwright/test'

/** A page of its own for one of the demo's people, signed in through the chooser. */
export async function signIn(browser: Browser, name: string, viewport = { width: 1280, height: 800 }): Promise<Page> {
	const context = await browser.newContext({ viewport })
	const page = await context.newPage()
	await page.goto('/sign-in')
	await page.getByRole('button', { name, exact: true }).click()
	await page.waitForURL((url) => url.pathname === '/')
	return page
}

export const PHONE = { width: 390, height: 844 }

/**
 * Opens a page whose scripts, or only some of them, are held back until the result is called: it stands there, but nobody
 * listens yet.
 */
export async function openHeld(page: Page, path: string, scripts = '**/_app/immutable/**/*.js'): Promise<() => void> {
	let cascade = () => {}
	const held = new Promise<void>((resolve) => (cascade = resolve))
	await page.route(scripts, async (route) => {
		await held
		await route.continue()
	})
	await page.goto(path, { waitUntil: 'commit' })
	return cascade
}
