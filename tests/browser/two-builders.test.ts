/** A draft on which two builders work at once, and what a builder does with its lines by pointer and in words. */
import { expect, test, type Page } from '@playwright/test'
import { signIn } from './people.ts'
import { write } from './screen-lines.ts'

const sentences = async (page: Page) =>
	(await page.locator('.ledger .sentence').allInnerTexts()).map((text) => text.replace(/\s+/g, ' ').trim())
const saved = (page: Page) => expect(page.getByText('Saving…')).toBeHidden()

/** A new screen of the stores with a heading or two, open before both builders. */
async function openBoth(one: Page, other: Page, title: string): Promise<void> {
	await one.goto('/bench/3/screens')
	await one.getByRole('button', { name: '+ Screen' }).click()
	await one.getByLabel('Title of the screen').fill(title)
	await write(one, 'Heading First', 'Heading Second')
	await saved(one)
	await other.goto('/bench/3/screens')
	await other.getByRole('button', { name: title }).click()
	await expect(other.locator('.ledger .line')).toHaveCount(2)
}

/** A slot of text filled anew. */
async function fill(page: Page, line: number, from: string, to: string): Promise<void> {
	await page
		.getByRole('group', { name: `Line ${line}` })
		.getByRole('button', { name: from, exact: true })
		.click()
	await page.locator('.editor input').fill(to)
	await page.keyboard.press('Enter')
	await saved(page)
}

test('two builders change one screen: what both did is kept, and of one place both versions are shown', async ({
	browser
}) => {
	const [saskia, jory] = [await signIn(browser, 'Saskia Holm'), await signIn(browser, 'Jory Pendarrow')]
	await openBoth(saskia, jory, 'For both')
	await fill(saskia, 1, 'First', 'Saskia’s')
	await fill(jory, 2, 'Second', 'Jory’s')
	expect(await sentences(jory)).toEqual(['Heading Saskia’s', 'Heading Jory’s'])
	// Both take the same line; the one who comes second decides.
	await saskia.evaluate(() => dispatchEvent(new Event('focus')))
	await expect.poll(() => sentences(saskia)).toEqual(['Heading Saskia’s', 'Heading Jory’s'])
	await fill(saskia, 1, 'Saskia’s', 'Hers')
	await fill(jory, 1, 'Saskia’s', 'His')
	await expect(jory.getByText('Another builder changed this while you did.')).toBeVisible()
	expect(await sentences(jory)).toEqual(['Heading Hers', 'Heading Jory’s'])
	await jory.getByRole('button', { name: 'Put mine there' }).click()
	await saved(jory)
	expect(await sentences(jory)).toEqual(['Heading His', 'Heading Jory’s'])
	// An undo takes back one's own and nothing of the other's.
	await saskia.evaluate(() => dispatchEvent(new Event('focus')))
	await expect.poll(() => sentences(saskia)).toEqual(['Heading His', 'Heading Jory’s'])
	await saskia.getByRole('button', { name: 'Undo' }).click()
	await expect(saskia.getByText('Another builder has changed this place since')).toBeVisible()
	expect(await sentences(saskia)).toEqual(['Heading His', 'Heading Jory’s'])
	for (const page of [saskia, jory]) await page.context().close()
})

test('a line is dragged to another level, taken back and done again, looked for, and compared', async ({ browser }) => {
	const builder = await signIn(browser, 'Saskia Holm')
	await builder.goto('/bench/3/screens')
	await builder.getByRole('button', { name: '+ Screen' }).click()
	await builder.getByLabel('Title of the screen').fill('Dragged')
	await write(builder, 'Heading Gannet rock', 'Section Holds')
	await saved(builder)
	const margin = (line: number) => builder.locator('.ledger .margin').nth(line - 1)
	const [from, to] = [await margin(1).boundingBox(), await margin(2).boundingBox()]
	if (!from || !to) throw new Error('Expected two lines')
	await builder.mouse.move(from.x + 10, from.y + 10)
	await builder.mouse.down()
	await builder.mouse.move(to.x + 20, to.y + to.height - 6, { steps: 4 })
	await builder.mouse.move(to.x + 32, to.y + to.height - 2, { steps: 4 })
	await builder.mouse.up()
	const levels = () =>
		builder.locator('.ledger .line').evaluateAll((lines) => lines.map((line) => line.style.getPropertyValue('--level')))
	await expect.poll(levels).toEqual(['0', '1'])
	expect(await sentences(builder)).toEqual(['Section Holds', 'Heading Gannet rock'])
	await builder.getByRole('button', { name: 'Undo' }).click()
	await expect.poll(levels).toEqual(['0', '0'])
	await builder.getByRole('button', { name: 'Redo' }).click()
	await expect.poll(levels).toEqual(['0', '1'])
	await saved(builder)

	// Found from another screen, by its words.
	await builder.getByRole('navigation', { name: 'Screens' }).getByRole('button', { name: 'Stock', exact: true }).click()
	await builder.getByLabel('Look through all lines').fill('rock gannet')
	await builder.getByRole('button', { name: 'Heading Gannet rock' }).click()
	await expect(builder.getByLabel('Title of the screen')).toHaveValue('Dragged')

	// The release says what it would change, and the book holds it all.
	await builder.goto('/bench/3/release')
	await expect(builder.locator('section', { hasText: 'What changes' }).locator('ins', { hasText: 'Screen Dragged' })).toBeVisible() // prettier-ignore
	await builder.goto('/bench/3/book')
	await expect(builder.getByRole('heading', { name: 'Dragged' })).toBeVisible()
	await expect(builder.getByText('Heading Gannet rock')).toBeVisible()
	await builder.context().close()
})

test('an app is called otherwise, staff see it once it is released, and a release that is put back has its old name', async ({
	browser
}) => {
	const builder = await signIn(browser, 'Saskia Holm')
	await builder.goto('/bench/3/release')
	await builder.getByLabel('Name', { exact: true }).fill('Shelves')
	await builder.getByLabel('plum').check()
	await saved(builder)
	await expect(builder.locator('section', { hasText: 'What changes' })).toContainText('Name: StoresShelves')
	await builder.getByRole('button', { name: /^Release as no/ }).click()
	await expect(builder.getByText('is live.')).toBeVisible()
	const wim = await signIn(browser, 'Wim Pascoe-Reyes')
	await expect(wim.getByRole('heading', { name: 'Shelves' })).toBeVisible()
	const manifest = (await (await wim.request.get('/app/3/manifest.webmanifest')).json()) as { name: string }
	expect(manifest.name).toBe('Shelves')
	await builder.getByRole('button', { name: 'Put back' }).last().click()
	await expect(builder.getByText('is live again.')).toBeVisible()
	await wim.goto('/')
	await expect(wim.getByRole('heading', { name: 'Stores' })).toBeVisible()
	for (const page of [builder, wim]) await page.context().close()
})
