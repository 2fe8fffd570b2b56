/** Forms that ask one thing after the other: conditions as one types, rows that go in together, pages, written by a builder. */
import { expect, test } from '@playwright/test'
import { PHONE, signIn } from './people.ts'
import { write } from './screen-lines.ts'

test('a diver is asked what follows from the answers before, and told what is still missing', async ({ browser }) => {
	const diver = await signIn(browser, 'Imke Dahl', PHONE)
	await diver.goto('/app/1/inspect')
	await expect(diver.getByText('Still to fill in: Mooring, Verdict')).toBeVisible()
	await expect(diver.getByText('Findings')).toBeHidden()
	await diver.getByRole('button', { name: 'Replace' }).click()
	await expect(diver.getByText('Findings')).toBeVisible()
	await expect(diver.getByText('Still to fill in: Mooring, Remark, Photo')).toBeVisible()
	await diver.getByLabel('Chain read').fill('240')
	await expect(diver.getByText('Chain measures between 0 and 100 mm. Read the gauge again.')).toBeVisible()
	await diver.getByRole('button', { name: 'Send' }).click()
	await expect(diver.getByText('Remark must be filled in.')).toBeVisible()
	await expect(diver.getByText('Not sent yet: see what is marked above.')).toBeVisible()
	// Nothing of that stands in the way of another answer.
	await diver.getByRole('button', { name: 'Sound' }).click()
	await diver.getByLabel('Chain read').fill('24')
	await diver.getByLabel('Mooring').fill('NH-02')
	await diver.getByRole('option', { name: 'NH-024' }).click()
	await expect(diver.getByText('Still to fill in')).toBeHidden()
	await diver.getByRole('button', { name: 'Send' }).click()
	await expect(diver.locator('p.thanks')).toBeVisible()
	await expect(diver.getByLabel('Mooring')).toHaveValue('')
	await diver.context().close()
})

test('a request and its items go in together, and whoever decides sees both', async ({ browser }) => {
	const keeper = await signIn(browser, 'Wim Pascoe-Reyes')
	await keeper.goto('/app/2/ask')
	await expect(keeper.getByLabel('Harbour')).toHaveValue('Varrow Quay')
	await keeper.getByLabel('What for').fill('Tackle for the outer row')
	const items = keeper.getByRole('region', { name: 'Spend items' })
	const fill = async (at: number, item: string, quantity: string, each: string) => {
		const row = items.getByRole('group', { name: `Spend items, ${at}` })
		await row.getByLabel('Item, must').fill(item)
		await row.getByLabel('Quantity').fill(quantity)
		await row.getByLabel('Each').fill(each)
	}
	await items.getByRole('button', { name: 'Add one' }).click()
	await fill(1, 'Riser chain', '3', '40.25')
	await items.getByRole('button', { name: 'Add another' }).click()
	await fill(2, 'Swivel', '2', '19.5')
	await expect(items.getByText('Total together £159.75')).toBeVisible()
	await keeper.getByLabel('Amount').fill('159.75')
	await keeper.getByLabel('Cost code').selectOption('4110 Chain and tackle')

	// What was typed, items and all, is there after the page was loaded again.
	await keeper.reload()
	await expect(keeper.getByText('Kept from before on this device.')).toBeVisible()
	await expect(items.getByRole('group', { name: 'Spend items, 2' }).getByLabel('Item, must')).toHaveValue('Swivel')
	await keeper.getByRole('button', { name: 'Send' }).click()
	await expect(keeper.locator('p.thanks')).toBeVisible()
	// It is empty again, but for what it begins with and what it remembers.
	await expect(keeper.getByLabel('What for')).toHaveValue('')
	await expect(keeper.getByLabel('Cost code')).toHaveValue('4110 Chain and tackle')
	await keeper.context().close()

	const controller = await signIn(browser, 'Petra Nankivell')
	await controller.goto('/waiting')
	await controller.getByRole('link', { name: /Tackle for the outer row/ }).click()
	await expect(controller.getByText('Riser chain')).toBeVisible()
	await expect(controller.getByText('Swivel')).toBeVisible()
	await controller.context().close()
})

test('a builder writes a form of two pages, which staff turn once they are filled in', async ({ browser }) => {
	const builder = await signIn(browser, 'Saskia Holm')
	await builder.goto('/bench/1/screens')
	await builder.getByRole('button', { name: '+ Screen' }).click()
	await write(
		builder,
		'Form that adds to inspections, asking for Diver',
		'Page What was seen',
		'Ask for Mooring, with the help It stands on the buoy.',
		'Ask for Verdict',
		'Show IF(Verdict = "Sound"; "no work"; "work to do") as What comes of it'
	)
	// A page goes after the page before it, once that one is chosen.
	await builder.getByRole('group', { name: 'Line 2' }).focus()
	await builder.keyboard.press('Tab')
	await write(builder, 'Page When', 'Ask for Date, starting as TODAY() - 1')
	const looked = builder.frameLocator('iframe').first()
	await expect(looked.getByText('page 1 of 2')).toBeVisible()
	await looked.getByRole('button', { name: 'Next' }).click()
	await expect(looked.getByText('Mooring must be filled in.')).toBeVisible()
	await expect(looked.getByText('It stands on the buoy.')).toBeVisible()
	await looked.getByRole('button', { name: 'Watch' }).click()
	await expect(looked.getByText('work to do')).toBeVisible()
	await looked.getByLabel('Mooring').fill('VQ-')
	await looked.getByRole('option').first().click()
	await looked.getByRole('button', { name: 'Next' }).click()
	await expect(looked.getByText('page 2 of 2')).toBeVisible()
	await expect(looked.getByLabel('Date')).not.toHaveValue('')
	await looked.getByRole('button', { name: 'Back' }).click()
	await expect(looked.getByLabel('Mooring')).toHaveValue(/VQ-/)
	await builder.context().close()
})
