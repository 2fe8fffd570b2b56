/** Reports as those meet them who get them: on their page, as a file, in their mail; each with what they see and no more. */
import AxeBuilder from '@axe-core/playwright'
import { expect, test, type Page } from '@playwright/test'
import ExcelJS from 'exceljs'
import { readFileSync } from 'node:fs'
import { numbersOfPeople, signInAs } from './asking.ts'
import { signIn } from './people.ts'

const alive = (page: Page) => expect(page.locator('#svelte-announcer')).toBeAttached()

test('a builder starts the stock sheet by hand; a storekeeper reads theirs and opens its file, nobody else does', async ({
	browser
}) => {
	const builder = await signIn(browser, 'Saskia Holm')
	await builder.goto('/bench/3/routines?routine=sheet')
	await alive(builder)
	await builder.getByRole('button', { name: 'Start it now' }).click()
	await expect(builder.getByText('It was started. What comes of it stands below.')).toBeVisible()
	await builder.getByRole('button', { name: 'Start it now' }).click()
	await expect(builder.getByText('less than a minute ago')).toBeVisible()

	const keeper = await signIn(browser, 'Wim Pascoe-Reyes')
	const notice = keeper
		.getByRole('article')
		.filter({ has: keeper.getByRole('heading', { name: 'Stock sheet of Varrow Quay' }) })
	await expect(async () => {
		await keeper.goto('/notices')
		await expect(notice.first()).toBeVisible({ timeout: 1_000 })
	}).toPass()
	const rows = notice.first().getByRole('group', { name: 'Stock, as reported' }).getByRole('row')
	await expect(rows.first()).toContainText('ItemShelfIn stockLeastWorth')
	const { violations } = await new AxeBuilder({ page: keeper }).analyze()
	expect(violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html}`)).toEqual([])

	const link = notice.first().getByRole('link', { name: 'Stock.xlsx' })
	const given = keeper.waitForEvent('download')
	await link.click()
	const book = new ExcelJS.Workbook()
	await book.xlsx.readFile(await (await given).path())
	const [sheet] = book.worksheets
	// All of it is in the file, of which the message shows a hundred rows at most.
	expect(sheet?.getRow(1).values).toEqual([undefined, 'Item', 'Shelf', 'In stock', 'Least', 'Worth (£)'])
	expect(sheet?.rowCount).toBeGreaterThanOrEqual(await rows.count())

	// In the mail as well; the address of the file is nobody else's.
	await keeper.goto('/post')
	await expect(keeper.getByText('With it came Stock.xlsx').first()).toBeVisible()
	const inTray = String(await keeper.getByRole('link', { name: 'Stock.xlsx' }).first().getAttribute('href'))
	await keeper.goto('/notices')
	const onPage = String(await link.getAttribute('href'))
	const other = await signInAs({ name: 'Corrie Ashdown' }, numbersOfPeople().get('Corrie Ashdown') ?? 0)
	for (const path of [onPage, inTray]) {
		expect((await keeper.request.get(path)).status(), path).toBe(200)
		expect((await other.get(path)).status(), path).toBe(404)
	}
	await builder.context().close()
	await keeper.context().close()
})

test('a harbour master has an inspection sent to himself as PDF, with its picture and what was found before', async ({
	browser
}) => {
	const master = await signIn(browser, 'Osric Vane')
	await master.goto('/app/1/inspections')
	await alive(master)
	await master
		.getByRole('main')
		.getByRole('link', { name: /VQ-\d+ on/ })
		.first()
		.click()
	await expect(master).toHaveURL(/inspection\?row=/)
	await master.getByRole('button', { name: 'Send me this as PDF' }).click()
	await expect(master.getByText('The sheet is on its way')).toBeVisible()
	const link = master.getByRole('link', { name: /^Inspection of VQ-\d+ on .*\.pdf$/ }).first()
	await expect(async () => {
		await master.goto('/notices')
		await expect(link).toBeVisible({ timeout: 1_000 })
	}).toPass()
	const given = master.waitForEvent('download')
	await link.click()
	const bytes = readFileSync(await (await given).path())
	expect(bytes.subarray(0, 5).toString('latin1')).toBe('%PDF-')
	// The photo and the signature lie in it.
	expect(bytes.toString('latin1').match(/\/Subtype \/Image/g)?.length).toBeGreaterThanOrEqual(2)
	await master.context().close()
})
