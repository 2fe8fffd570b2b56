import { expect, type Page } from '@playwright/test'

/** Adds lines to the screen that a builder has open, by the sentences that they type. */
export async function write(builder: Page, ...sentences: string[]): Promise<void> {
	const box = builder.getByLabel('Add a line by typing what it should do')
	for (const sentence of sentences) {
		await box.fill(sentence)
		await box.press('Enter')
		await expect(box).toHaveValue('')
	}
}
