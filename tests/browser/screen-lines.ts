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

/** Releases what a builder has written, once it is saved. */
export async function release(builder: Page, app: number): Promise<void> {
	await expect(builder.getByText('Saving…')).toBeHidden()
	await builder.goto(`/bench/${app}/release`)
	await builder.getByRole('button', { name: /^Release as no/ }).click()
	await expect(builder.getByText('is live.')).toBeVisible()
}
