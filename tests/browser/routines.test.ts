/** Routines as a builder writes them and as others meet them: a crossing told once, a button that adds, runs step by step. */
import { expect, test, type Page } from '@playwright/test'
import Database from 'better-sqlite3'
import { BASE, FILE } from './asking.ts'
import { signIn } from './people.ts'

async function addLine(page: Page, sentence: string): Promise<void> {
	const typed = page.getByLabel('Add a line by typing what it should do')
	await typed.fill(sentence)
	await typed.press('Enter')
	await expect(typed).toHaveValue('')
}

const alive = (page: Page) => expect(page.locator('#svelte-announcer')).toBeAttached()

test('a builder writes one by the clock: steps within steps, moved by keys, said where they would not work', async ({
	browser
}) => {
	const builder = await signIn(browser, 'Saskia Holm')
	await builder.goto('/bench/3/routines')
	await alive(builder)
	await builder.getByRole('button', { name: '+ New routine' }).click()
	await builder.getByRole('button', { name: 'by the clock' }).click()
	await builder.getByLabel('Name of the routine').fill('Counting day')
	await builder.getByLabel('Name of the routine').blur()
	await expect(builder.getByText('Starts nothing yet')).toBeVisible()

	const start = builder.getByRole('group', { name: 'Line ▸' })
	await start.locator('[data-slot="start.days"]').click()
	const days = builder.getByRole('textbox', { name: 'On which days' })
	await days.fill('whenever')
	await days.press('Enter')
	await expect(builder.getByText('"whenever" says no days.')).toBeVisible()
	await days.fill('the last friday of each month')
	await days.press('Enter')
	await expect(start).toContainText('last Friday of each month')

	await addLine(builder, 'For each row of Stock where short and not ISBLANK(Harbour.Storekeeper)')
	await addLine(builder, 'Send Harbour.Storekeeper the message {Item}, saying Count it again.')
	const second = builder.getByRole('group', { name: 'Line 2' })
	await expect(second).toContainText('Harbour.Storekeeper')
	// It stands in the one before: out of it there is no row.
	await second.focus()
	await second.press('Alt+ArrowLeft')
	await builder.getByRole('link', { name: 'Check and release' }).click()
	await expect(builder.getByText('Routine Counting day, line 2').first()).toBeVisible()
	await builder.goBack()
	await alive(builder)
	await builder.getByRole('button', { name: /Counting day/ }).click()
	await builder.getByRole('group', { name: 'Line 2' }).focus()
	await builder.getByRole('group', { name: 'Line 2' }).press('Alt+ArrowRight')
	await builder.getByRole('link', { name: 'Check and release' }).click()
	await expect(builder.getByRole('heading', { name: 'Release' }).first()).toBeVisible()
	await expect(builder.getByText('Routine Counting day, line')).toHaveCount(0)
	await builder.goBack()
	await alive(builder)
	await builder.getByRole('button', { name: /Counting day/ }).click()
	await builder.getByRole('button', { name: 'Remove routine' }).click()
	await expect(builder.getByRole('button', { name: /Counting day/ })).toHaveCount(0)
	await builder.context().close()
})

test('stock that falls under its least is told once, and the builder reads what the run came to; paused, it starts nothing', async ({
	browser
}) => {
	const builder = await signIn(browser, 'Saskia Holm')
	const stock = stockTable()
	const rows = await stockOf(builder, stock)
	const item = rows.find(
		(each) => each.harbour === 'Varrow Quay' && each.least > 2 && each.stock > each.least
	) as StockRow
	expect(item).toBeDefined()
	const set = (value: number) => setStock(builder, stock, item.id, value)
	const told = () => takenIn(`${item.name} is running low at Varrow Quay`)
	const before = told()
	await set(item.least - 1)
	await expect.poll(told).toBe(before + 1)
	await set(item.least - 2)

	await builder.goto('/bench/3/routines?routine=low')
	await alive(builder)
	const run = builder.getByRole('row', { name: new RegExp(escaped(item.name)) }).first()
	await expect(run).toContainText('done')
	await run.getByRole('link').click()
	await expect(builder.getByRole('heading', { name: new RegExp(`^Low stock, .*${escaped(item.name)}`) })).toBeVisible()
	await expect(builder.getByText('sent to Wim Pascoe-Reyes')).toBeVisible()
	await builder.getByRole('link', { name: 'Low stock' }).click()

	await builder.getByRole('button', { name: 'Pause it' }).click()
	await expect(builder.getByText('Paused.')).toBeVisible()
	await set(item.stock)
	await set(item.least - 1)
	await builder.reload()
	await expect(builder.getByText('1 under way or waiting')).toBeVisible()
	expect(told()).toBe(before + 1)
	await builder.getByRole('button', { name: 'Let it start again' }).click()
	await expect.poll(told).toBe(before + 2)
	await set(item.stock)
	await builder.context().close()
})

test('a harbour master orders new tackle by one press, is told what came of it, and finds the work order', async ({
	browser
}) => {
	const master = await signIn(browser, 'Osric Vane')
	await master.goto('/app/1/all')
	await alive(master)
	await master.getByRole('link', { name: /VQ-/ }).first().click()
	await master.getByRole('button', { name: 'Order new tackle' }).click()
	const said = master.getByText(/^Raised: new tackle for VQ-\d+\./)
	await expect(said).toBeVisible()
	const code = /VQ-\d+/.exec(await said.innerText())?.[0] ?? ''
	// It stands open, to be given to somebody.
	await expect(master).toHaveURL(/\/app\/1\/order\?row=/)
	await expect(master.getByRole('heading', { name: `New tackle for ${code}` })).toBeVisible()
	await master.goto('/app/1/work')
	await alive(master)
	await expect(master.getByText(`New tackle for ${code}`).first()).toBeVisible()
	await master.context().close()
})

test('a diver is asked how a job went, answers on a phone, and the harbour master is told', async ({ browser }) => {
	const diver = await signIn(browser, 'Bram Oyelaran')
	await diver.setViewportSize({ width: 390, height: 844 })
	// It stands on their first page as well.
	await diver.goto('/')
	await alive(diver)
	await diver.getByRole('link', { name: /how did it go/ }).click()
	await expect(diver).toHaveURL(/\/waiting\/ask\//)
	const [, job = ''] = /^(.*): how did it go\?$/.exec(await diver.locator('h2.label').innerText()) ?? []
	expect(job).toMatch(/ at VQ-\d+$/)
	const address = diver.url()
	await diver.getByLabel('State, must be filled in').selectOption('Done')
	await diver.getByLabel('Note').fill('The swivel was seized.')
	await diver.getByRole('button', { name: 'Send it' }).click()
	await expect(diver).toHaveURL('/waiting')
	await expect(diver.getByRole('link', { name: /how did it go/ })).toHaveCount(0)
	await expect.poll(() => takenIn(`${job}: Done`)).toBe(1)
	await diver.goto(address)
	await expect(diver.getByText('This has been answered already, or is not asked any more.')).toBeVisible()

	const master = await signIn(browser, 'Osric Vane')
	await master.getByRole('link', { name: /^Notices ?\d/ }).click()
	await master.getByRole('button', { name: new RegExp(`${escaped(job)}: Done$`) }).click()
	await expect(master).toHaveURL(/\/app\/1\/order\?row=/)
	await expect(master.getByText('The swivel was seized.')).toBeVisible()
	await master.goto('/notices')
	const told = master.getByRole('article').filter({ hasText: `${job}: Done` })
	await expect(told).toBeVisible()
	await expect(told.getByText('new')).toHaveCount(0)

	const builder = await signIn(browser, 'Saskia Holm')
	await builder.goto('/bench/1/routines?routine=went')
	await alive(builder)
	await builder.getByRole('row', { name: /done/ }).first().getByRole('link').click()
	await expect(builder.getByText('answered by Bram Oyelaran')).toBeVisible()
	await expect(builder.getByText('sent to Osric Vane')).toBeVisible()
	for (const page of [diver, master, builder]) await page.context().close()
})

test('somebody says how they are told, is refused half of their quiet hours, and reads all at once', async ({
	browser
}) => {
	const page = await signIn(browser, 'Imke Dahl')
	await page.goto('/me')
	await alive(page)
	await page.getByRole('radio', { name: /once a day/ }).check()
	await page.getByLabel('Nothing between').fill('22:00')
	await page.getByRole('button', { name: 'Keep it' }).last().click()
	await expect(page.getByText('Quiet hours have a beginning and an end.')).toBeVisible()
	await page.getByLabel('and', { exact: true }).fill('07:00')
	await page.getByRole('button', { name: 'Keep it' }).last().click()
	await expect(page.getByText('From now on you are told so.')).toBeVisible()
	await page.reload()
	await expect(page.getByRole('radio', { name: /once a day/ })).toBeChecked()
	await expect(page.getByLabel('Nothing between')).toHaveValue('22:00')
	await alive(page)
	for (const label of ['Nothing between', 'and']) await page.getByLabel(label, { exact: true }).fill('')
	await page.getByRole('radio', { name: 'at once' }).check()
	await page.getByRole('button', { name: 'Keep it' }).last().click()
	await expect(page.getByText('From now on you are told so.')).toBeVisible()
	await page.goto('/notices')
	await alive(page)
	await page.getByRole('button', { name: 'Mark all as read' }).click()
	await expect(page.getByText('· new')).toHaveCount(0)
	await expect(page.getByRole('link', { name: 'Notices', exact: true })).toBeVisible()
	await page.context().close()
})

interface StockRow {
	readonly id: string
	readonly name: string
	readonly harbour: string
	readonly stock: number
	readonly least: number
}

interface Stock {
	readonly table: number
	/** The number of a column, by its name. */
	readonly column: (name: string) => number
}

/** Where stock lies, by the document of the workspace. */
function stockTable(): Stock {
	const db = new Database(FILE, { readonly: true })
	const newest = `SELECT body FROM document WHERE kind = 'workspace' ORDER BY version DESC LIMIT 1`
	const document = JSON.parse(String(db.prepare(newest).pluck().get())) as {
		tables: { id: number; name: string; columns: { id: number; name: string }[] }[]
	}
	db.close()
	const table = document.tables.find(({ name }) => name === 'Stock')
	return { table: table?.id ?? 0, column: (name) => table?.columns.find((each) => each.name === name)?.id ?? 0 }
}

/** How many messages of a subject the post has taken in. */
function takenIn(subject: string): number {
	const db = new Database(FILE, { readonly: true })
	const many = Number(db.prepare(`SELECT count(*) FROM post_tray WHERE subject = ?`).pluck().get(subject))
	db.close()
	return many
}

/** Read as the builder who keeps the table. */
async function stockOf(builder: Page, { table, column }: Stock): Promise<StockRow[]> {
	const page = (await (await builder.request.get(`/rows/${table}?limit=200`)).json()) as { rows: { id: string; cells: Record<string, unknown> }[] } // prettier-ignore
	return page.rows.map(({ id, cells }) => {
		const cell = (name: string) => cells[`c${column(name)}`]
		const harbour = (cell('Harbour') as { label: string } | null)?.label ?? ''
		return { id, name: String(cell('Item')), harbour, stock: Number(cell('In stock')), least: Number(cell('Least')) }
	})
}

async function setStock(builder: Page, { table, column }: Stock, row: string, value: number): Promise<void> {
	const data = { kind: 'change', row, cells: [{ column: column('In stock'), value }] }
	const answer = await builder.request.post(`/rows/${table}`, { data, headers: { origin: BASE } })
	expect(answer.status(), await answer.text()).toBe(200)
}

function escaped(text: string): string {
	return text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')
}

test('a builder types steps of every newer kind, in an app of their own, and nothing is left to mend', async ({
	browser
}) => {
	const builder = await signIn(browser, 'Saskia Holm')
	await builder.goto('/bench/1/routines')
	await alive(builder)
	const begin = async (start: string, name: string) => {
		await builder.getByRole('button', { name: '+ New routine' }).click()
		await builder.getByRole('button', { name: start, exact: true }).click()
		await builder.getByLabel('Name of the routine').fill(name)
		await builder.getByLabel('Name of the routine').blur()
		await expect(builder.getByRole('button', { name: new RegExp(name) })).toBeVisible()
	}
	const table = async (name: string) => {
		await builder.getByRole('group', { name: 'Line ▸' }).locator('[data-slot="start.table"]').click()
		await builder
			.getByRole('option', { name, exact: true })
			.or(builder.getByRole('button', { name, exact: true }))
			.click()
	}
	await begin('when another routine runs it', 'Nudge')
	await table('Work orders')
	await addLine(builder, 'Send Mooring.Harbour.Master the message {What} waits, saying Dear {me.Name}, look at it.')
	await begin('at a button', 'Chase')
	await table('Work orders')
	await addLine(builder, 'Run Nudge on the row')
	await addLine(builder, 'Open for whoever pressed Work order on this row')
	await addLine(builder, 'Wait until State = "Done", for at most 5 working days')
	await addLine(
		builder,
		'Report to Mooring.Harbour.Master the rows of Work orders where Mooring = this.Mooring, by Day, A to Z, showing What, State with the message Done: {What}, saying All of it:; attached as a PDF file'
	)
	await addLine(builder, 'Write for Mooring.Harbour.Master the document {What}, with the words As PDF.')
	for (const [i, text] of [
		'Run Nudge on the row',
		'Open for whoever pressed Work order on this row',
		'Wait until State = "Done", for at most 5 working days',
		'attached as a PDF file',
		'Write for Mooring.Harbour.Master the document {What}'
	].entries())
		await expect(builder.getByRole('group', { name: `Line ${i + 1}`, exact: true })).toContainText(text)
	await builder.getByRole('link', { name: 'Check and release' }).click()
	await expect(builder.getByRole('heading', { name: 'Release' }).first()).toBeVisible()
	await expect(builder.getByText(/^Routine (Nudge|Chase), line/)).toHaveCount(0)
	await builder.goto('/bench/1/routines')
	await alive(builder)
	for (const name of ['Chase', 'Nudge']) {
		await builder.getByRole('button', { name: new RegExp(name) }).click()
		await builder.getByRole('button', { name: 'Remove routine' }).click()
		await expect(builder.getByRole('button', { name: new RegExp(name) })).toHaveCount(0)
	}
	await builder.context().close()
})
