/** What staff do at one press in the stores: set amounts, boxes, several rows at once; and finding anything by a few letters. */
import AxeBuilder from '@axe-core/playwright'
import { expect, test, type Page } from '@playwright/test'
import { PHONE, signIn } from './people.ts'

const stockOf = async (page: Page, item: string) =>
	Number(/In stock (\d+)/.exec(await page.getByRole('listitem').filter({ hasText: item }).innerText())?.[1])

test('a set amount counts from the list and from the sheet, and two people at once both count', async ({ browser }) => {
	const item = 'Chain caliper'
	const [wim, jory] = [await signIn(browser, 'Wim Pascoe-Reyes'), await signIn(browser, 'Jory Pendarrow')]
	for (const page of [wim, jory]) await page.goto('/app/3/stock')
	const before = await stockOf(wim, item)
	const add = (page: Page) => page.getByRole('button', { name: `+1 In stock: ${item}` }).click()
	// Neither has seen what the other did.
	await Promise.all([add(wim), add(jory)])
	await expect(wim.getByText(`Done: +1 In stock, ${item}.`)).toBeVisible()
	await expect(jory.getByText(`Done: +1 In stock, ${item}.`)).toBeVisible()
	await expect(wim.getByRole('listitem').filter({ hasText: item })).toContainText(`In stock ${before + 2}`)
	await wim.getByRole('button', { name: 'Undo' }).click()
	await expect(wim.getByText('Taken back.')).toBeVisible()
	await expect(wim.getByRole('listitem').filter({ hasText: item })).toContainText(`In stock ${before + 1}`)
	await wim.getByRole('link', { name: new RegExp(item) }).click()
	const there = Number(await wim.locator('.tally strong').first().innerText())
	await wim.getByRole('button', { name: 'Take 1 from One' }).click()
	await expect(wim.locator('.tally strong').first()).toHaveText(String(there - 1))
	for (const page of [wim, jory]) await page.context().close()
})

test('a box is saved as it is ticked and taken back, and what runs short is added up', async ({ browser }) => {
	const page = await signIn(browser, 'Hale Dunmore')
	await page.goto('/app/3/order')
	const box = page.getByRole('checkbox').first()
	const was = await box.isChecked()
	await box.click()
	await expect(page.getByText(/^Done: On order (ticked|cleared)/)).toBeVisible()
	await page.reload()
	await expect(box).toBeChecked({ checked: !was })
	const cells = await page.locator('tbody tr').evaluateAll((rows) => rows.map((row) => row.querySelectorAll('td')[3]?.textContent)) // prettier-ignore
	const sum = cells.reduce((total, cell) => total + Number(cell), 0)
	await expect(page.locator('tfoot')).toContainText(String(sum))
	const { violations } = await new AxeBuilder({ page }).analyze()
	expect(violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html}`)).toEqual([])
	await page.context().close()
})

test('several rows are chosen by key and touch and done at once, each refusal named', async ({ browser }) => {
	const page = await signIn(browser, 'Wim Pascoe-Reyes', PHONE)
	await page.goto('/app/3/stock')
	await page.getByRole('button', { name: 'Choose several' }).click()
	const boxes = page.getByRole('checkbox')
	await boxes.first().focus()
	await page.keyboard.press('Space')
	// With Shift all from the last one to this.
	await boxes.nth(3).click({ modifiers: ['Shift'] })
	await expect(page.getByText('4 of 45 chosen')).toBeVisible()
	await page.getByRole('button', { name: 'Counted today' }).click()
	await expect(page.getByText('Counted today: done on 4 of 4 rows.')).toBeVisible()
	await page.getByRole('button', { name: 'Undo' }).click()
	await expect(page.getByText('Taken back.')).toBeVisible()

	// One of two is refused, since its row was taken out meanwhile: the answer says which, and the other is done.
	await page.route('**/app/3/stock/do', (route) => {
		const { kind, presses } = route.request().postDataJSON() as { kind: string; presses: { row: string }[] }
		const [first, ...others] = presses
		return route.continue({ postData: { kind, presses: [{ ...first, row: 'gone' }, ...others] } })
	})
	const name = await page.getByRole('link', { name: /Chain 13 mm/ }).innerText()
	await page.getByRole('button', { name: 'Choose several' }).click()
	// A tap on the row itself chooses it too.
	await page.locator('label.row').first().click()
	await boxes.nth(1).click()
	await page.getByRole('button', { name: 'Counted today' }).click()
	await expect(page.getByText('Counted today: done on 1 of 2 rows.')).toBeVisible()
	await expect(page.getByText(new RegExp(`^${name.split('\n')[0]}: .*(not|gone)`))).toBeVisible()
	await page.unroute('**/app/3/stock/do')
	await page.getByRole('button', { name: 'Undo' }).click()
	await expect(page.getByText('Taken back.')).toBeVisible()
	await page.context().close()
})

test('anything that is open to somebody is found by a few letters, and nothing else', async ({ browser }) => {
	const page = await signIn(browser, 'Wim Pascoe-Reyes')
	await page.goto('/app/3/stock')
	// It is there from the mounting on.
	await expect(page.locator('#svelte-announcer')).toBeAttached()
	await page.keyboard.press('Control+k')
	const find = page.getByRole('combobox', { name: 'Find screens' })
	await expect(find).toBeFocused()
	await find.fill('caliper')
	const found = page.getByRole('option')
	await expect(found.first()).toContainText('Chain caliper')
	const { violations } = await new AxeBuilder({ page }).include('dialog').analyze()
	expect(violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html}`)).toEqual([])
	await page.keyboard.press('Enter')
	await expect(page.getByRole('heading', { name: 'Chain caliper' })).toBeVisible()
	await page.keyboard.press('Control+k')
	await find.fill('to order')
	await expect(found).toHaveText([/To order/])
	await page.keyboard.press('Escape')
	await expect(find).toBeHidden()
	// Moorings are none of the stores keeper's.
	await page.keyboard.press('Control+k')
	await find.fill('VQ-00')
	await expect(found.first()).toBeVisible()
	await expect(found.filter({ hasText: 'Mooring Care' })).toHaveCount(0)
	await page.context().close()
})

test('a page whose session ran out is signed in again over what was typed, and closes for somebody else', async ({
	browser
}) => {
	const page = await signIn(browser, 'Wim Pascoe-Reyes')
	const context = page.context()
	await page.goto('/app/3/new')
	await page.getByLabel('Item').fill('Grapnel 5 kg')
	const signInAgain = async (name: string) => {
		const popup = context.waitForEvent('page')
		await page.getByRole('button', { name: 'Sign in again' }).click()
		const opened = await popup
		await opened.getByRole('button', { name, exact: true }).click()
		await expect.poll(() => opened.isClosed()).toBe(true)
	}
	// What is typed is judged by itself too: the word may be there before the press, and lie over the button.
	const send = () => page.getByRole('button', { name: 'Send' }).dispatchEvent('click')
	await page.getByLabel('Kind').selectOption('Tool')
	await context.clearCookies()
	await send()
	await expect(page.getByRole('heading', { name: 'You are signed out' })).toBeVisible()
	await signInAgain('Wim Pascoe-Reyes')
	await expect(page.getByRole('heading', { name: 'You are signed out' })).toBeHidden()
	await expect(page.getByLabel('Item')).toHaveValue('Grapnel 5 kg')

	await context.clearCookies()
	await send()
	await expect(page.getByRole('heading', { name: 'You are signed out' })).toBeVisible()
	await signInAgain('Imke Dahl')
	await page.waitForURL((url) => url.pathname === '/')
	await expect(page.getByText('Grapnel')).toHaveCount(0)
	await context.close()
})

test('a link that is not open to somebody offers to ask, and whoever looks after people lets them in', async ({
	browser
}) => {
	const anselm = await signIn(browser, 'Anselm Roke')
	await anselm.goto('/app/3/all')
	await expect(anselm.getByRole('heading', { name: 'Not here, or not open to you' })).toBeVisible()
	const { violations } = await new AxeBuilder({ page: anselm }).analyze()
	expect(violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html}`)).toEqual([])
	await anselm.getByLabel('Why you need it').fill('What the stores are worth, for the year end.')
	await anselm.getByRole('button', { name: 'Ask to be let in' }).click()
	await expect(anselm.getByText('Asked. You are told')).toBeVisible()

	const steward = await signIn(browser, 'Ailith Brand')
	await steward.goto('/waiting')
	const request = steward.locator('article').filter({ hasText: 'Anselm Roke' })
	await expect(request).toContainText('For the screen All harbours.')
	await expect(request.getByRole('button', { name: 'Let Anselm Roke in' })).toBeDisabled()
	await request.getByLabel('Role for Anselm Roke').selectOption('Stores keepers')
	await request.getByRole('button', { name: 'Let Anselm Roke in' }).click()
	await expect(request).toHaveCount(0)
	await anselm.goto('/app/3/all')
	await expect(anselm.getByRole('heading', { name: 'Stock of all harbours' })).toBeVisible()
	for (const page of [anselm, steward]) await page.context().close()
})

test('what is chosen and typed on a screen narrows its list down, in its address and with its sums', async ({
	browser
}) => {
	const page = await signIn(browser, 'Jutta Carrow')
	await page.goto('/app/3')
	await expect(page.getByText('180 stock')).toBeVisible()
	const whole = await page.locator('tfoot').innerText()
	await page.getByRole('radio', { name: 'Gull Stair' }).check()
	await expect(page.getByText('45 stock')).toBeVisible()
	await expect(page.locator('tfoot')).not.toHaveText(whole)
	await page.getByRole('combobox', { name: 'Kind' }).selectOption('Shackle')
	await expect(page.getByText('7 stock')).toBeVisible()
	await page.getByLabel('Item').fill('bow')
	await expect(page.getByText('3 stock')).toBeVisible()
	// What is typed stands where no log holds it.
	expect(new URL(page.url()).search).not.toContain('bow')
	await page.reload()
	await expect(page.getByText('3 stock')).toBeVisible()
	await expect(page.getByLabel('Item')).toHaveValue('bow')
	await expect(page.getByRole('radio', { name: 'Gull Stair' })).toBeChecked()
	await page.getByRole('radio', { name: 'all' }).check()
	await expect(page.getByText('12 stock')).toBeVisible()
	await page.getByLabel('Item').fill('')
	await page.getByRole('combobox', { name: 'Kind' }).selectOption('all')
	await expect(page.getByText('180 stock')).toBeVisible()
	// A number is typed; what is none is said and changes nothing, and a link brings the number along.
	const most = page.getByRole('textbox', { name: 'Price at most' })
	await most.fill('5.5')
	await most.press('Enter')
	await expect(page.getByText('52 stock')).toBeVisible()
	await page.reload()
	await expect(most).toHaveValue('5.5')
	await most.fill('many')
	await most.press('Enter')
	await expect(page.getByText('"many" is no number.')).toBeVisible()
	await expect(page.getByText('52 stock')).toBeVisible()
	await most.fill('')
	await most.press('Enter')
	await expect(page.getByText('180 stock')).toBeVisible()
	await page.context().close()
})

test('a button gives another screen what stands in its row', async ({ browser }) => {
	const page = await signIn(browser, 'Wim Pascoe-Reyes')
	await page.goto('/app/3/stock')
	await page.getByRole('button', { name: 'Do something with Marlin spike' }).click()
	await page.getByRole('button', { name: 'In other harbours: Marlin spike' }).click()
	await expect(page.getByLabel('Item')).toHaveValue('Marlin spike')
	await expect(page.getByText('4 stock')).toBeVisible()
	await page.goBack()
	await expect(page.getByRole('heading', { name: 'On the shelves' })).toBeVisible()
	await page.context().close()
})

test('what others change is said and marked, and nobody loses their place', async ({ browser }) => {
	const [wim, jory] = await Promise.all([signIn(browser, 'Wim Pascoe-Reyes'), signIn(browser, 'Jory Pendarrow')])
	await wim.goto('/app/3/stock')
	await jory.goto('/app/3/stock')
	const item = 'Impeller kit'
	const row = wim.getByRole('listitem').filter({ hasText: item })
	await row.scrollIntoViewIfNeeded()
	const top = (await row.boundingBox())?.y
	await jory.getByRole('button', { name: `+1 In stock: ${item}` }).click()
	await expect(row.getByText('changed', { exact: true })).toBeVisible()
	expect((await row.boundingBox())?.y).toBe(top)
	// To who did it, it is no news.
	await expect(jory.getByText(`Done: +1 In stock, ${item}.`)).toBeVisible()
	await expect(jory.getByText('changed by others')).toHaveCount(0)
	await wim.getByRole('button', { name: '1 changed by others · seen' }).click()
	await expect(row.getByText('changed', { exact: true })).toHaveCount(0)
	await jory.getByRole('button', { name: 'Undo' }).click()
	for (const page of [wim, jory]) await page.context().close()
})

test('a form changes the row that is shown, beside the list that it was opened from', async ({ browser }) => {
	const page = await signIn(browser, 'Wim Pascoe-Reyes')
	await page.goto('/app/3/stock')
	await page.getByRole('link', { name: /Ladder rung/ }).click()
	await page.getByRole('link', { name: 'Count it' }).click()
	const form = page.getByRole('form', { name: 'Change Stock' })
	const [count, shelf] = [form.getByLabel('In stock'), form.getByLabel('Shelf')]
	await expect(count).not.toHaveValue('')
	expect((await count.boundingBox())?.y).toBe((await shelf.boundingBox())?.y)
	await count.fill('0')
	await form.getByLabel('Note').fill('')
	await expect(form.getByText('Still to fill in: Note')).toBeVisible()
	// What was typed is kept, over what stands there.
	await page.reload()
	await expect(count).toHaveValue('0')
	const note = `Lost at Orrin Slip ${Date.now()}`
	await form.getByLabel('Note').fill(note)
	await form.getByRole('button', { name: 'Save' }).click()
	await expect(page.getByRole('heading', { name: 'Ladder rung' })).toBeVisible()
	await expect(page.getByText(note)).toBeVisible()
	await expect(page.getByRole('listitem').filter({ hasText: 'Ladder rung' })).toContainText('In stock 0')
	await page.context().close()
})

test('a row that is not there offers to ask, and what others change in a table is marked', async ({ browser }) => {
	const [wim, jory] = await Promise.all([signIn(browser, 'Wim Pascoe-Reyes'), signIn(browser, 'Jory Pendarrow')])
	await wim.goto('/app/3/item?row=AAAAAAAAAAAAAAAAAAAAAA')
	await expect(wim.getByText('This row is not there, or not for you to see.')).toBeVisible()
	await expect(wim.getByRole('button', { name: 'Ask to be let in' })).toBeVisible()
	await wim.goto('/app/3/all')
	await expect(wim.locator('#svelte-announcer')).toBeAttached()
	await wim.getByLabel('Item').fill('Fuel filter')
	await expect(wim.getByText('4 stock')).toBeVisible()
	await jory.goto('/app/3/stock')
	await jory.getByRole('button', { name: '+1 In stock: Fuel filter' }).click()
	await expect(wim.getByRole('cell', { name: 'Fuel filter changed' })).toBeVisible()
	await jory.getByRole('button', { name: 'Undo' }).click()
	for (const page of [wim, jory]) await page.context().close()
})

test('a list on paper has the whole width of the sheet, without what is pressed, and says where it ends', async ({
	browser
}) => {
	// A4 at 96 dots to the inch.
	const page = await signIn(browser, 'Maren Tolliver', { width: 794, height: 1123 })
	await page.goto('/app/1/all')
	await expect(page.getByRole('button', { name: 'Show more' })).toBeVisible()
	await page.emulateMedia({ media: 'print' })
	await expect(page.getByRole('button', { name: 'Show more' })).toBeHidden()
	await expect(page.getByRole('searchbox')).toBeHidden()
	await expect(page.getByText('Here end the 50 rows that were shown; there are more.')).toBeVisible()
	expect((await page.locator('main').boundingBox())?.width).toBeGreaterThan(700)
	await page.context().close()
})

test('codes are scanned one after the other, as a scanner types them, and each counts at once', async ({ browser }) => {
	const page = await signIn(browser, 'Wim Pascoe-Reyes', PHONE)
	await page.goto('/app/3/stock')
	await expect(page.locator('#svelte-announcer')).toBeAttached()
	const box = page.getByRole('textbox', { name: 'Taking one: scan its code' })
	const scan = async (code: string) => {
		await box.pressSequentially(code)
		await page.keyboard.press('Enter')
	}
	await box.focus()
	await scan('VQ-0001')
	const left = page.getByText(/^Chain 13 mm, long link: \d+ left on shelf \w+\.$/)
	await expect(left).toBeVisible()
	const first = Number(/: (\d+) left/.exec(await left.innerText())?.[1])
	// The box is empty and has the focus: the next is scanned without a touch.
	await expect(box).toHaveValue('')
	await expect(box).toBeFocused()
	await scan('vq-0001')
	await expect(page.getByText(`Chain 13 mm, long link: ${first - 1} left`)).toBeVisible()
	await page.getByRole('button', { name: 'Undo' }).click()
	await expect(page.getByText('Taken back.')).toBeVisible()
	await box.focus()
	await scan('VQ-9999')
	await expect(page.getByText('VQ-9999: no row of Stock with this Barcode is there for you to see.')).toBeVisible()
	// What was not known is typed over by the next.
	await scan('VQ-0001')
	await expect(page.getByText(`Chain 13 mm, long link: ${first - 1} left`)).toBeVisible()
	const { violations } = await new AxeBuilder({ page }).analyze()
	expect(violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html}`)).toEqual([])
	await page.context().close()
})
