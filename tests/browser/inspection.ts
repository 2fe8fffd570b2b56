/** A diver's inspection, filled in as one does on the quay. */
import type { Page } from '@playwright/test'
import { PNG } from 'pngjs'

/** Larger than a photo is sent, so that it is made smaller on the way. */
export function photo(): { name: string; mimeType: string; buffer: Buffer } {
	const picture = new PNG({ width: 2600, height: 1300 })
	picture.data.fill(90)
	return { name: 'IMG_0001.png', mimeType: 'image/png', buffer: PNG.sync.write(picture) }
}

/** The form of an inspection that stands open: which mooring, when, and what came of it. */
export async function fillInspection(page: Page, mooring: string, verdict: string): Promise<void> {
	await page.getByLabel('Mooring').fill(mooring.slice(0, 5))
	await page.getByRole('option', { name: mooring }).click()
	await page.getByLabel('Date').fill('2026-11-23')
	await page.getByRole('button', { name: verdict }).click()
}

export async function sign(page: Page): Promise<void> {
	const surface = page.locator('canvas')
	await surface.scrollIntoViewIfNeeded()
	const box = await surface.boundingBox()
	if (!box) throw new Error('Expected a surface to sign on')
	await page.mouse.move(box.x + 20, box.y + 60)
	await page.mouse.down()
	for (let i = 1; i <= 20; i++) await page.mouse.move(box.x + 20 + i * 8, box.y + 60 + Math.sin(i) * 25)
	await page.mouse.up()
}
