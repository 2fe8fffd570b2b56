/**
 * The whole way: a spreadsheet becomes a table, a table an app, and a diver's request is decided by a harbour master.
 * Every response that the diver gets is read: none may hold a row of another harbour.
 */
import { expect, test, type Page } from '@playwright/test'
import { join } from 'node:path'
import { PHONE, signIn } from './people.ts'

const REGISTER = join('test-results', 'workspace', 'shared drive', 'Mooring register.xlsx')

test('from the register to a decided request', async ({ browser }) => {
	// The longest of all: a minute and more where the machine has other work.
	test.setTimeout(300_000)
	const builder = await signIn(browser, 'Saskia Holm')

	await test.step('bring in the register', async () => {
		await builder.getByRole('link', { name: 'Start an app from a file or tables' }).click()
		await builder.getByLabel('What it is called').fill('Buoy Watch')
		await builder.getByRole('button', { name: 'Start the app' }).click()
		await builder.getByLabel('Choose a file').setInputFiles(REGISTER)
		await expect(builder.getByRole('heading', { name: 'Mooring register.xlsx' })).toBeVisible()
		// Title rows above, a stray spelling and a comma decimal: all of it is told.
		await expect(builder.getByLabel('Row of the headings')).toHaveValue('2')
		await expect(builder.getByText('says Swingng, which is nearly Swinging')).toBeVisible()
		// Many of its dates fit day first alone, and none month first: nothing is asked.
		await expect(builder.getByText('Last look reads two ways')).toHaveCount(0)
		await expect(builder.getByText('says 1,4.')).toBeVisible()
		await expect(builder.getByText('Old ref is wholly blank and left out.')).toBeVisible()
		await builder.getByLabel('Name of the table').fill('Buoys')
		await builder.getByRole('button', { name: 'Bring in 264 rows' }).click()
		await expect(builder.getByText('264 rows are in Buoys.')).toBeVisible()
		await expect(builder.getByText('Every cell was read.')).toBeVisible()
		await builder.getByRole('link', { name: 'Open the table' }).click()
	})

	await test.step('type and reference', async () => {
		await expect(builder.getByRole('gridcell', { name: 'GS-001' })).toBeVisible()
		const harbour = builder.getByRole('columnheader', { name: /Harbour/ })
		await harbour.getByRole('button').first().click()
		await builder.getByRole('button', { name: 'Open its card' }).click()
		await builder.getByText('Another type').click()
		await builder.getByLabel('Make it').selectOption('a reference to Harbours')
		await expect(builder.getByText('264 rows find theirs. Nothing is lost.')).toBeVisible()
		await builder.getByRole('button', { name: 'Make it a reference', exact: true }).click()
		await expect(harbour.getByText('→ Harbours')).toBeVisible()
		await addColumn(builder, 'Asked of', async () => {
			await builder.getByLabel('Type').selectOption('text')
		})
		await addColumn(builder, 'Next due', async () => {
			await builder.getByLabel('Type').selectOption('computed')
			await builder.getByLabel('Formula', { exact: true }).fill('EDATE(Last look; IF(Type = "Pontoon"; 24; 12))')
			await expect(builder.getByText('when the row changes, and kept')).toBeVisible()
		})
	})

	await test.step('access lines', async () => {
		await builder.getByRole('link', { name: /Access/ }).click()
		await expect(builder.getByRole('heading', { name: /Who may see and change/ })).toBeVisible()
		await builder.getByRole('link', { name: 'Buoys' }).click()
		await expect(builder.getByRole('heading', { name: 'Who may see and change Buoys' })).toBeVisible()
		await addLine(builder, 'Divers may see, add and change rows where Harbour = me.Harbour, all columns')
		await expect(builder.getByText('Unsaved.')).toBeVisible()
		await expect(builder.getByRole('row', { name: /Imke Dahl/ })).toContainText('71')
		await expect(builder.getByRole('row', { name: /Tobiah Lunn/ })).toContainText('58')
		await builder.getByRole('button', { name: 'Save lines' }).click()
		await expect(builder.getByText('What stands here is in force.')).toBeVisible()
	})

	await test.step('an app with a routine and a sign-off', async () => {
		await builder.getByRole('link', { name: /4\s*Screens/ }).click()
		await builder.getByLabel('Make screens from a table').selectOption('Buoys')
		await expect(
			builder.getByRole('navigation', { name: 'Screens' }).getByRole('button', { name: 'Buoy', exact: true })
		).toBeVisible()

		await builder.getByRole('link', { name: /5\s*Routines/ }).click()
		await builder.getByRole('button', { name: '+ New routine' }).click()
		await builder.getByRole('button', { name: 'at a button' }).click()
		await builder.getByLabel('Name of the routine').fill('Looked today')
		await builder.getByLabel('Name of the routine').blur()
		// It begins on the table that the app is most about.
		await expect(builder.getByRole('group', { name: 'Line ▸' })).toContainText('a row of Buoys')
		await addLine(builder, 'Set Last look to TODAY()')
		await expect(builder.locator('[data-slot="formula"]')).toHaveText('TODAY()')

		await builder.getByRole('link', { name: /4\s*Screens/ }).click()
		await builder
			.getByRole('navigation', { name: 'Screens' })
			.getByRole('button', { name: 'Buoy', exact: true })
			.click()
		await addLine(builder, 'Button Looked today runs Looked today')
		await expect(builder.getByRole('group', { name: 'Line 2' })).toContainText('runs Looked today')

		await builder.getByRole('link', { name: /6\s*Sign-offs/ }).click()
		await builder.getByRole('button', { name: 'Add a sign-off' }).click()
		await builder.getByLabel('Name of the sign-off').fill('New buoy')
		await builder.getByLabel('Name of the sign-off').blur()
		await builder.locator('[data-slot="table"]').click()
		await builder.getByRole('button', { name: 'Buoys', exact: true }).click()
		await builder.locator('[data-slot="where"]').click()
		await builder.getByLabel('Formula', { exact: true }).fill('Asked of = "master"')
		await expect(builder.getByText('Rows that match now')).toBeVisible()
		await builder.getByRole('button', { name: 'Done' }).click()
		await builder.locator('[data-slot="decider"]').click()
		await builder.getByLabel('Formula', { exact: true }).fill('Harbour.Master')
		await expect(builder.getByText('Osric Vane', { exact: true })).toBeVisible()
		await builder.getByRole('button', { name: 'Done' }).click()
		await expect(builder.locator('[data-slot="decider"]')).toHaveText('Harbour.Master')
	})

	await test.step('release', async () => {
		await builder.getByRole('link', { name: 'Check and release' }).click()
		await expect(builder.getByText('mend')).toHaveCount(0)
		await builder.getByLabel('What has changed').fill('First')
		await builder.getByRole('button', { name: 'Release as no. 1' }).click()
		await expect(builder.getByText('Release 1 is live.')).toBeVisible()
	})

	const diver = await signIn(browser, 'Imke Dahl', PHONE)
	const received: string[] = []
	diver.on('response', async (response) => {
		const kind = response.headers()['content-type'] ?? ''
		if (/json|html/.test(kind)) received.push(await response.text().catch(() => ''))
	})

	await test.step('as a diver on a phone, press the routine’s button', async () => {
		await diver.goto('/')
		await diver.getByRole('listitem').filter({ hasText: 'Buoy Watch' }).getByRole('link', { name: 'Open' }).click()
		await expect(diver.getByText('71 buoys')).toBeVisible()
		await diver.getByRole('link', { name: /NH-002/ }).click()
		await expect(diver.getByRole('heading', { name: 'NH-002' })).toBeVisible()
		await diver.getByRole('button', { name: 'Looked today' }).click()
		await expect(diver.getByText('Done: ')).toBeVisible()
		const today = new Intl.DateTimeFormat('en-GB', {
			day: 'numeric',
			month: 'short',
			year: 'numeric',
			timeZone: 'Europe/London'
		}).format(new Date())
		await expect(
			diver
				.getByRole('definition')
				.filter({ hasText: today.replace('Sept', 'Sep') })
				.first()
		).toBeVisible()
	})

	await test.step('a form with a gap sends nothing and keeps what was typed', async () => {
		await diver.getByRole('link', { name: 'Buoys' }).click()
		await diver.getByRole('link', { name: 'Add a buoy' }).click()
		await diver.getByLabel('Code').fill('NH-900')
		await diver.getByLabel('Depth').fill('deep')
		await diver.getByRole('button', { name: 'Send' }).click()
		await expect(diver.getByText('"deep" is no number.')).toBeVisible()
		await diver.reload()
		await expect(diver.getByLabel('Code')).toHaveValue('NH-900')
	})

	await test.step('and add a row that asks for a decision', async () => {
		await diver.getByLabel('Depth').fill('4.2')
		await diver.getByRole('combobox', { name: 'Harbour' }).fill('Ness')
		await diver.getByRole('option', { name: 'Ness Hythe' }).click()
		await diver.getByLabel('Asked of').fill('master')
		await diver.getByRole('button', { name: 'Send' }).click()
		await expect(diver.getByText('Saved.', { exact: true })).toBeVisible()
		await expect(diver.getByLabel('Code')).toHaveValue('')
	})

	const master = await signIn(browser, 'Maren Tolliver')
	await test.step('the message is in the Post tray, and its link leads to the request', async () => {
		await expect(async () => {
			await master.goto('/post')
			await expect(master.getByRole('heading', { name: 'New buoy: NH-900' })).toHaveCount(1)
		}).toPass()
		await master.getByRole('article').filter({ hasText: 'New buoy: NH-900' }).getByRole('link').click()
		await expect(master.getByRole('heading', { name: 'NH-900' })).toBeVisible()
	})

	await test.step('the harbour master decides', async () => {
		await master.getByLabel('Comment').fill('Good spot, clear of the fairway.')
		await master.getByRole('button', { name: 'Approve' }).click()
		await expect(master.getByText('approved by Maren Tolliver')).toBeVisible()
		await master.goto('/waiting')
		await master.getByRole('tab', { name: /Decided by me/ }).click()
		await expect(master.getByRole('link', { name: /NH-900/ })).toBeVisible()
	})

	await test.step('the diver sees the decision and cannot change it', async () => {
		await diver.goto('/waiting')
		await diver.getByRole('tab', { name: /Asked by me/ }).click()
		await diver.getByRole('link', { name: /NH-900/ }).click()
		await expect(diver.getByText('Good spot, clear of the fairway.')).toBeVisible()
		await diver.goto('/')
		await diver.getByRole('listitem').filter({ hasText: 'Buoy Watch' }).getByRole('link', { name: 'Open' }).click()
		await diver.getByRole('button', { name: 'Show more' }).click()
		await diver.getByRole('link', { name: /NH-900/ }).click()
		await expect(diver.getByText('Closed to changes.')).toBeVisible()
		await expect(diver.getByRole('button', { name: 'Change' })).toHaveCount(0)
		const row = new URL(diver.url()).searchParams.get('row') ?? ''
		const table = await tableOf(builder, 'Buoys')
		const refused = await diver.evaluate(
			async ([id, of]) => {
				const body = JSON.stringify({ kind: 'remove', row: id })
				const response = await fetch(`/rows/${of}`, {
					method: 'POST',
					headers: { 'content-type': 'application/json' },
					body
				})
				return { status: response.status, said: await response.text() }
			},
			[row, table] as const
		)
		expect(refused.status).toBe(422)
		expect(refused.said).toContain('Closed to changes')
	})

	// The diver's harbour is Ness Hythe; codes of the other three begin with their own letters.
	expect(received.length).toBeGreaterThan(10)
	expect(received.some((text) => text.includes('NH-002'))).toBe(true)
	for (const text of received) expect(text).not.toMatch(/\b(VQ|GS|OS)-\d{3}\b/)
})

async function addColumn(page: Page, name: string, rest: () => Promise<void>): Promise<void> {
	await page.getByRole('button', { name: '+ Column' }).click()
	await page.getByLabel('Name', { exact: true }).fill(name)
	await rest()
	await page.getByRole('button', { name: 'Add the column' }).click()
	await expect(page.getByRole('columnheader', { name: new RegExp(name) })).toBeVisible()
}

async function addLine(page: Page, sentence: string): Promise<void> {
	const typed = page.getByLabel('Add a line by typing what it should do')
	await typed.fill(sentence)
	await typed.press('Enter')
	await expect(typed).toHaveValue('')
}

async function tableOf(page: Page, name: string): Promise<string> {
	await page.getByRole('link', { name: /2\s*Tables/ }).click()
	await page.getByRole('link', { name: new RegExp(`^${name}`) }).click()
	await expect(page).toHaveURL(/table=\d+/)
	return new URL(page.url()).searchParams.get('table') ?? ''
}
