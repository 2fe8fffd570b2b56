/** Rows as they were on a past day: the whole table for its builder, a list of them for staff. */
import AxeBuilder from '@axe-core/playwright'
import { expect, test } from '@playwright/test'
import { PHONE, signIn } from './people.ts'
import { release, write } from './screen-lines.ts'

test('a builder looks at a table as it was, sees what stands otherwise today, and goes back', async ({ browser }) => {
	const builder = await signIn(browser, 'Saskia Holm')
	await builder.goto('/bench/1/tables')
	await builder.getByRole('link', { name: /^Moorings/ }).click()
	await builder.getByRole('link', { name: 'As it was on a past day' }).click()
	await expect(builder.getByRole('heading', { name: 'Moorings as it was on' })).toBeVisible()
	const long = new Date(Date.now() - 200 * 86_400_000).toISOString().slice(0, 10)
	await builder.getByLabel('The day at whose end it was so').fill(long)
	await expect(builder).toHaveURL(new RegExp(`on=${long}`))
	await expect(builder.getByRole('cell', { name: /^\d+\.\d m.*otherwise today/ }).first()).toBeVisible()
	const { violations } = await new AxeBuilder({ page: builder }).analyze()
	expect(violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html}`)).toEqual([])
	await builder.getByLabel('Words that stand in a row').fill('GS-012')
	await expect(builder.getByText('1 row, as they stood')).toBeVisible()
	// Before the register was brought in there was nothing.
	await builder.getByLabel('The day at whose end it was so').fill('2019-05-01')
	await expect(builder.getByText('There was no row then that you see today.')).toBeVisible()
	await builder.getByRole('link', { name: 'Back to today' }).click()
	await expect(builder.getByRole('button', { name: 'Add a row' })).toBeVisible()
	await builder.context().close()
})

test('a list shows staff what was, says so, and offers nothing to change', async ({ browser }) => {
	const builder = await signIn(browser, 'Saskia Holm')
	await builder.goto('/bench/3/screens?screen=order')
	await expect(builder.getByLabel('Title of the screen')).toHaveValue('To order')
	await write(
		builder,
		'List of Stock where Harbour = me.Harbour, as it was on TODAY() - 3, by Item; each row shows Item, In stock; a tap opens nothing',
		'Figure lie here showing the count from Stock where Harbour = me.Harbour; compared with how it was on TODAY() - 400'
	)
	await release(builder, 3)
	await builder.context().close()
	const wim = await signIn(browser, 'Wim Pascoe-Reyes', PHONE)
	await wim.goto('/app/3/order')
	const day = new Date(Date.now() - 3 * 86_400_000)
	const says = `${day.getUTCDate()} ${day.toLocaleString('en-GB', { month: 'short', timeZone: 'UTC' })} ${day.getUTCFullYear()}`
	await expect(wim.getByText(`as it was on ${says}`)).toBeVisible()
	await expect(wim.getByText(/^\d+ more than on \d+ \w+ 20\d\d$/)).toBeVisible()
	await wim.context().close()
})
