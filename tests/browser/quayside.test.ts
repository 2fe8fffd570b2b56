/** The tablet on the quay: a crew checks itself in without an account, is told where to lie, and the next one finds nothing of it. */
import AxeBuilder from '@axe-core/playwright'
import { expect, test, type Browser, type Page } from '@playwright/test'
import { signIn } from './people.ts'

/** A page of its own on the tablet, where nobody has signed in. */
async function comeAsCrew(browser: Browser): Promise<Page> {
	const context = await browser.newContext({ viewport: { width: 1180, height: 820 } })
	const page = await context.newPage()
	await page.goto('/app/4')
	await page.getByRole('button', { name: 'Look in as a visitor' }).click()
	await expect(page.getByRole('heading', { name: 'Welcome to the harbour' })).toBeVisible()
	return page
}

test('a crew checks itself in, is told where to lie and what to pay, and nothing of it is left', async ({
	browser
}) => {
	const page = await comeAsCrew(browser)
	await expect(page.getByText('Waiting on me')).toHaveCount(0)
	await page.getByRole('button', { name: 'Check in' }).click()
	await page.getByLabel(/^Harbour/).click()
	await page.getByRole('option', { name: 'Varrow Quay', exact: true }).click()
	await page.getByLabel(/^Boat/).fill('Test of Tide')
	await page.getByLabel(/^Length/).fill('9.8')
	const { violations } = await new AxeBuilder({ page }).analyze()
	expect(violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html}`)).toEqual([])
	await page.getByRole('button', { name: 'Next' }).click()
	await page.getByLabel(/^Nights/).fill('2')
	await page.getByRole('button', { name: 'Next' }).click()
	await page.getByLabel(/^Berth/).click()
	const berth = await page.getByRole('option').first().innerText()
	await page.getByRole('option').first().click()
	await expect(page.getByText('£39.20')).toBeVisible()
	await page.getByRole('button', { name: 'Send' }).click()
	await expect(page.getByRole('status').filter({ hasText: `Lie at ${berth}. £39.20 to pay` })).toBeVisible()
	await page.getByRole('button', { name: 'Start again' }).click()
	await expect(page.getByLabel(/^Boat/)).toHaveValue('')

	// The office sees who came; the berth is offered to nobody else.
	const clerk = await signIn(browser, 'Corrie Ashdown')
	await clerk.goto('/app/4')
	await expect(clerk.getByRole('row', { name: /Test of Tide/ })).toContainText('£39.20')
	await page.getByLabel(/^Harbour/).click()
	await page.getByRole('option', { name: 'Varrow Quay', exact: true }).click()
	await page.getByLabel(/^Boat/).fill('Another')
	await page.getByLabel(/^Length/).fill('9.8')
	await page.getByRole('button', { name: 'Next' }).click()
	await page.getByRole('button', { name: 'Next' }).click()
	await page.getByLabel(/^Berth/).click()
	await expect(page.getByRole('option').first()).toBeVisible()
	await expect(page.getByRole('option', { name: berth, exact: true })).toHaveCount(0)
	// Of the visits themselves a crew sees none.
	expect((await page.request.get('/app/4/now')).status()).toBe(404)
	for (const each of [page, clerk]) await each.context().close()
})

test('a link says which quay the tablet stands on, and it stays when it goes back by itself', async ({ browser }) => {
	const clerk = await signIn(browser, 'Corrie Ashdown')
	await clerk.goto('/app/4/in')
	const options = clerk.waitForResponse((response) => response.url().includes('/options/'))
	await clerk.getByLabel(/^Harbour/).click()
	const found = (await (await options).json()) as { id: string; label: string }[]
	const quay = found.find(({ label }) => label === 'Ness Hythe')?.id ?? ''
	expect(quay).not.toBe('')
	await clerk.context().close()

	const page = await comeAsCrew(browser)
	await page.clock.install()
	await page.goto(`/app/4/start?h.quay=${quay}`)
	await expect(page.locator('#svelte-announcer')).toBeAttached()
	await page.getByRole('button', { name: 'Check in' }).click()
	await expect(page.getByLabel(/^Harbour/)).toHaveValue('Ness Hythe')
	await page.getByLabel(/^Boat/).fill('Private words')
	await page.clock.runFor(95_000)
	await page.waitForURL((url) => url.pathname === '/app/4/start' && url.searchParams.get('h.quay') === quay)
	await expect(page.locator('#svelte-announcer')).toBeAttached()
	await page.getByRole('button', { name: 'Check in' }).click()
	await expect(page.getByLabel(/^Harbour/)).toHaveValue('Ness Hythe')
	await expect(page.getByLabel(/^Boat/)).toHaveValue('')
	await page.context().close()
})

test('a crew says how it was by taps and keys; what follows from an answer is asked, and the next one finds nothing of it', async ({
	browser
}) => {
	const page = await comeAsCrew(browser)
	await page.getByRole('button', { name: 'Say how it was' }).click()
	const question = (text: string) => page.getByRole('heading', { name: text })
	await expect(question('How was your stay?')).toBeVisible()
	const { violations } = await new AxeBuilder({ page }).analyze()
	expect(violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html}`)).toEqual([])

	// Who is content is not asked what could be better; back again, another answer asks it.
	await page.getByRole('button', { name: /Very good/ }).click()
	await expect(question('Is there anything else')).toBeFocused()
	await page.getByRole('button', { name: 'Back' }).click()
	await expect(page.getByRole('button', { name: /Very good/ })).toHaveAttribute('aria-pressed', 'true')
	await page.keyboard.press('4')
	await expect(question('What could be better?')).toBeVisible()
	await page.keyboard.press('1')
	await expect(question('Is there anything else')).toBeVisible()
	await page.getByRole('textbox').fill('The new bell rings at night')
	await page.keyboard.press('Enter')
	await expect(page.getByText('The harbour office reads every answer.')).toBeVisible()
	// While it thanks no key does anything; then it begins again for the next one.
	await page.keyboard.press('1')
	await expect(question('How was your stay?')).toBeVisible()
	await expect(page.locator('[aria-pressed="true"]')).toHaveCount(0)
	await page.context().close()

	const manager = await signIn(browser, 'Jutta Carrow')
	await manager.goto('/app/4/said')
	await expect(manager.getByText('The new bell rings at night')).toBeVisible()
	await expect(manager.getByText('Poor · Noise').first()).toBeVisible()
	await manager.context().close()
})
