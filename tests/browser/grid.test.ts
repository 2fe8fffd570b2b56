/** The grid as an analyst works in it: blocks to and from a spreadsheet, order, filters, and the way back from everything. */
import { expect, test, type Page } from '@playwright/test'
import { signIn } from './people.ts'

const MOORINGS = '/bench/1/tables?table=101'

async function openMoorings(page: Page): Promise<void> {
	await page.goto(MOORINGS)
	await expect(cell(page, 'GS-001', 'Depth')).toHaveText('9.2 m')
}

const HEADINGS = ['Code', 'Harbour', 'Type', 'Depth', 'Position', 'Last look', 'Chain']

function cell(page: Page, code: string, heading: string) {
	return page
		.getByRole('row', { name: new RegExp(code) })
		.getByRole('gridcell')
		.nth(HEADINGS.indexOf(heading))
}

/** As a spreadsheet puts it on the clipboard. */
async function paste(page: Page, text: string): Promise<void> {
	await page.getByRole('grid').evaluate((grid, given) => {
		const clipboardData = new DataTransfer()
		clipboardData.setData('text/plain', given)
		grid.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }))
	}, text)
}

async function copied(page: Page): Promise<string> {
	return page.getByRole('grid').evaluate((grid) => {
		const clipboardData = new DataTransfer()
		grid.dispatchEvent(new ClipboardEvent('copy', { clipboardData, bubbles: true, cancelable: true }))
		return clipboardData.getData('text/plain')
	})
}

test('a block is copied, pasted, filled down, cleared, taken back and done again', async ({ browser }) => {
	const page = await signIn(browser, 'Saskia Holm')
	await openMoorings(page)
	await cell(page, 'GS-001', 'Type').click()
	await page.keyboard.press('Shift+ArrowDown')
	await page.keyboard.press('Shift+ArrowRight')
	expect(await copied(page)).toBe('Trot\t9.2\r\nTrot\t10.1')

	await cell(page, 'GS-001', 'Type').click()
	await paste(page, 'Pontoon\t1.1\r\nDrying\t2.2\r\n')
	await expect(cell(page, 'GS-002', 'Depth')).toHaveText('2.2 m')
	await expect(cell(page, 'GS-001', 'Type')).toHaveText('Pontoon')
	await page.keyboard.press('Control+z')
	await expect(cell(page, 'GS-002', 'Depth')).toHaveText('10.1 m')
	await page.keyboard.press('Control+y')
	await expect(cell(page, 'GS-002', 'Depth')).toHaveText('2.2 m')
	await page.keyboard.press('Control+z')
	await expect(cell(page, 'GS-001', 'Type')).toHaveText('Trot')

	await cell(page, 'GS-006', 'Depth').click()
	await cell(page, 'GS-008', 'Depth').click({ modifiers: ['Shift'] })
	await expect(page.getByText('3 filled')).toBeVisible()
	await expect(page.getByText('sum 19.2')).toBeVisible()
	await page.keyboard.press('Control+d')
	await expect(cell(page, 'GS-008', 'Depth')).toHaveText('3.8 m')
	await page.keyboard.press('Control+z')
	await expect(cell(page, 'GS-008', 'Depth')).toHaveText('5.9 m')
})

test('a paste that does not fit says which cells and why, and puts in none or those that do', async ({ browser }) => {
	const page = await signIn(browser, 'Saskia Holm')
	await openMoorings(page)
	await cell(page, 'GS-004', 'Depth').click()
	await paste(page, 'deep\r\n8.8\r\n')
	await expect(page.getByRole('alert')).toContainText('1 of 2 cells does not fit. Nothing was put in yet.')
	await expect(page.getByRole('alert')).toContainText('Row 4, Depth: "deep" is no number.')
	await expect(cell(page, 'GS-005', 'Depth')).toHaveText('1.5 m')
	await page.getByRole('button', { name: 'Put in none' }).click()
	await expect(cell(page, 'GS-005', 'Depth')).toHaveText('1.5 m')
	await paste(page, 'deep\r\n8.8\r\n')
	await page.getByRole('button', { name: 'Put in those that fit' }).click()
	await expect(cell(page, 'GS-005', 'Depth')).toHaveText('8.8 m')
	await expect(cell(page, 'GS-004', 'Depth')).toHaveText('4.7 m')
	await page.keyboard.press('Control+z')
	await expect(cell(page, 'GS-005', 'Depth')).toHaveText('1.5 m')
	// What only the server can know: no harbour of that name.
	await cell(page, 'GS-004', 'Harbour').click()
	await paste(page, 'Atlantis')
	await expect(page.getByRole('alert')).toContainText('Harbour: "Atlantis" was not found.')
	await expect(cell(page, 'GS-004', 'Harbour')).toHaveText('Gull Stair')
})

test('order by several columns, filters, a frozen and a hidden column', async ({ browser }) => {
	const page = await signIn(browser, 'Saskia Holm')
	await openMoorings(page)
	const menu = async (name: string) =>
		page
			.getByRole('columnheader', { name: new RegExp(`^${name}`) })
			.getByRole('button')
			.first()
			.click()
	await menu('Type')
	await page.getByRole('button', { name: 'Sort lowest first' }).click()
	await menu('Depth')
	await page.getByRole('button', { name: 'largest first' }).nth(1).click()
	const depths = async () => (await page.getByRole('row').nth(1).getByRole('gridcell').nth(3).textContent())?.trim()
	await expect(page.getByRole('columnheader', { name: /^Depth ↓2/ })).toBeVisible()
	await expect.poll(depths).not.toBe('9.2 m')

	await menu('Harbour')
	await page.getByLabel('Only rows where it').selectOption('is')
	await page.getByLabel('Value').fill('ness hythe')
	await page.getByRole('button', { name: 'Filter', exact: true }).click()
	await expect(page.getByText(/^\d+\s+rows found/)).toBeVisible()
	await expect(page.getByRole('row').nth(1).getByRole('gridcell').nth(1)).toHaveText('Ness Hythe')
	await page.getByRole('button', { name: 'Harbour is ness hythe ×' }).click()
	await expect(page.getByText(/^264\s+rows ·/)).toBeVisible()

	await menu('Position')
	await page.getByRole('button', { name: 'Hide' }).click()
	await expect(page.getByRole('columnheader', { name: /^Position/ })).toHaveCount(0)
	await page.getByRole('button', { name: 'Show Position' }).click()
	await expect(page.getByRole('columnheader', { name: /^Position/ })).toBeVisible()

	await page.keyboard.press('Control+f')
	await page.getByLabel('Find').fill('NH-01')
	await expect(page.getByRole('status').filter({ hasText: '10 rows' })).toBeVisible()
})

test('a column gets another name, and what read it goes on; Ctrl Z brings the name back', async ({ browser }) => {
	const page = await signIn(browser, 'Saskia Holm')
	await openMoorings(page)
	await page
		.getByRole('columnheader', { name: /^Depth/ })
		.getByRole('button')
		.first()
		.click()
	await page.getByRole('button', { name: 'Open its card' }).click()
	await page.getByLabel('Name', { exact: true }).fill('Depth at low water')
	await page.getByRole('button', { name: 'Keep', exact: true }).click()
	await expect(page.getByRole('columnheader', { name: /^Depth at low water/ })).toBeVisible()
	await page.getByRole('button', { name: 'Undo' }).last().click()
	await expect(page.getByRole('columnheader', { name: /^Depth decimal/ })).toBeVisible()
})

test('what stands in a column is counted and drawn; a press on one finds its rows, and by keyboard too', async ({
	browser
}) => {
	const page = await signIn(browser, 'Saskia Holm')
	await openMoorings(page)
	const look = async (heading: RegExp) => {
		await page.getByRole('columnheader', { name: heading }).getByRole('button').first().click()
		await page.getByRole('button', { name: 'What is in it' }).click()
	}
	await look(/^Type/)
	await expect(page.getByRole('heading', { name: 'What is in Type' })).toBeVisible()
	const swinging = page.getByRole('listitem').filter({ hasText: 'Swinging' })
	const rows = Number((await swinging.innerText()).replace(/\D/g, ''))
	expect(rows).toBeGreaterThan(0)
	await swinging.getByRole('button', { name: 'Swinging' }).press('Enter')
	await expect(page.getByText(`${rows} rows found`)).toBeVisible()
	await expect(page.getByRole('heading', { name: 'What is in Type' })).toHaveCount(0)
	// Of the rows that are left, by month; a month is found again.
	await look(/^Last look/)
	await expect(page.getByRole('status').filter({ hasText: 'different' })).toContainText(`${rows} rows found`)
	const month = page.getByRole('listitem').filter({ hasText: 'Oct 2026' })
	const inMonth = Number((await month.innerText()).replace('Oct 2026', '').replace(/\D/g, ''))
	await month.getByRole('button').click()
	await expect(page.getByText(`${inMonth} ${inMonth === 1 ? 'row' : 'rows'} found`)).toBeVisible()
	await look(/^Depth/)
	await expect(page.getByText('mean')).toBeVisible()
	await page.getByRole('button', { name: 'Close' }).last().click()
	await page.context().close()
})
