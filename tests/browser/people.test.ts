/** A steward adds somebody, who comes in by the link of the message, and is seen to hold what was given. */
import { expect, test, type Browser, type Page } from '@playwright/test'
import { TOTP } from 'otpauth'
import { signIn } from './people.ts'

const NEW_PASSWORD = 'kelp ladder quince forty'

/** A page of a browser that nobody is signed in on. */
async function stranger(browser: Browser): Promise<Page> {
	return (await browser.newContext()).newPage()
}

/** The link of the latest message to an address, as it lies in the Post tray, once it has arrived there. */
async function linkFor(steward: Page, address: string, link = /\/join\/[\w-]+/): Promise<string> {
	// Messages come newest first, each with its recipient before its text; an address that stands between is another's.
	const wanted = new RegExp(`${address.replaceAll('.', '\\.')}[^@]*?(${link.source})`)
	const find = async () => wanted.exec(await (await steward.request.get('/post/__data.json')).text())?.[1] ?? ''
	await expect.poll(find).not.toBe('')
	return find()
}

async function signInByHand(page: Page, email: string, password: string): Promise<void> {
	await page.goto('/sign-in')
	await page.getByLabel('Email').fill(email)
	await page.getByLabel('Password').fill(password)
	await page.getByRole('button', { name: 'Sign in', exact: true }).click()
}

test('somebody is invited, comes in once by the link, and loses all of it in the open page', async ({ browser }) => {
	const steward = await signIn(browser, 'Ailith Brand')
	await steward.getByRole('link', { name: 'People and roles' }).click()
	await steward.getByRole('link', { name: 'Add somebody' }).click()
	await steward.getByLabel('Name, must be filled in').fill('Tamsin Orlo')
	await steward.getByLabel('Email, must be filled in').fill('tamsin.orlo@varrow.example')
	await steward.getByLabel('Harbour', { exact: true }).fill('Ness')
	await steward.getByRole('option', { name: 'Ness Hythe' }).click()
	await steward.getByLabel('Divers').check()
	await steward.getByRole('button', { name: 'Add and invite' }).click()
	await expect(steward.getByRole('heading', { name: 'Tamsin Orlo' })).toBeVisible()
	await expect(steward.locator('article .stamp')).toHaveText('invited')
	const link = await linkFor(steward, 'tamsin.orlo@varrow.example')
	expect(link).toMatch(/^\/join\//)

	const diver = await stranger(browser)
	await diver.goto(link)
	await expect(diver.getByRole('heading', { name: 'Welcome, Tamsin Orlo' })).toBeVisible()
	await diver.getByLabel('A password').fill('tamsin1234')
	await diver.getByRole('button', { name: 'Come in' }).click()
	await expect(diver.getByText('This password is quickly guessed')).toBeVisible()
	await diver.getByLabel('A password').fill(NEW_PASSWORD)
	await diver.getByRole('button', { name: 'Come in' }).click()
	await diver.goto('/app/1/all')
	await expect(diver.getByText('71 moorings')).toBeVisible()

	const later = await stranger(browser)
	await later.goto(link)
	await expect(later.getByRole('heading', { name: 'This link no longer works' })).toBeVisible()

	// Another harbour, then no role: the page that is open follows.
	await steward.reload()
	await expect(steward.locator('article .stamp')).toHaveText('active')
	await steward.getByRole('button', { name: 'Take Divers away' }).click()
	await expect(steward.getByText('Divers is taken away.')).toBeVisible()
	await expect(diver.getByText('71 moorings')).toBeHidden()
	await steward.getByLabel('Give').selectOption('Berth clerks')
	await expect(steward.getByText('Berth clerks is given, from now on.')).toBeVisible()
	await diver.goto('/app/1/all')
	await expect(diver.getByText('264 moorings')).toBeVisible()

	await steward.getByRole('button', { name: 'Suspend' }).click()
	await expect(steward.locator('article .stamp')).toHaveText('suspended')
	// The open page is led out by itself.
	await expect(diver.getByRole('heading', { name: 'Sign in' })).toBeVisible()
	await signInByHand(diver, 'tamsin.orlo@varrow.example', NEW_PASSWORD)
	await expect(diver.getByText('This account is suspended.')).toBeVisible()
	for (const page of [steward, diver, later]) await page.context().close()
})

test('a page that is shut out before it is told of anything finds out as well', async ({ browser }) => {
	const diver = await signIn(browser, 'Bram Oyelaran')
	let letThrough = (): void => {}
	const isLet = new Promise<void>((resolve) => (letThrough = resolve))
	await diver.route('/events?*', (route) => isLet.then(() => route.continue()))
	const asked = diver.waitForRequest('/events?*')
	await diver.goto('/app/1/all')
	await asked
	const steward = await signIn(browser, 'Ailith Brand')
	await steward.getByRole('link', { name: 'People and roles' }).click()
	await steward.getByRole('link', { name: 'Bram Oyelaran' }).click()
	await steward.getByRole('button', { name: 'Suspend' }).click()
	await expect(steward.locator('article .stamp')).toHaveText('suspended')
	letThrough()
	await expect(diver.getByRole('heading', { name: 'You are signed out' })).toBeVisible()
	await steward.getByRole('button', { name: 'Let back in' }).click()
	await expect(steward.locator('article .stamp')).toHaveText('active')
	for (const page of [steward, diver]) await page.context().close()
})

test('a second step is set up, asked for, and a code is taken once', async ({ browser }) => {
	const page = await stranger(browser)
	await signInByHand(page, 'hale.dunmore@varrow.example', 'lantern on the quay')
	await page.getByRole('link', { name: /Hale Dunmore/ }).click()
	await expect(page.getByText('this one')).toBeVisible()
	await page.getByLabel('Your password').fill('wrong')
	await page.getByRole('button', { name: 'Begin' }).click()
	await expect(page.getByText('This is not your password.')).toBeVisible()
	await page.getByLabel('Your password').fill('lantern on the quay')
	await page.getByRole('button', { name: 'Begin' }).click()
	const secret = ((await page.locator('.secret').textContent()) ?? '').replaceAll(' ', '')
	expect(secret).toMatch(/^[A-Z2-7]{32}$/)
	const totp = new TOTP({ secret })
	const code = totp.generate()
	await page.getByLabel('Six figures').fill(code)
	await page.getByRole('button', { name: 'Set it up' }).click()
	await expect(page.getByText('From now on signing in asks for a code as well.')).toBeVisible()

	const other = await stranger(browser)
	await signInByHand(other, 'hale.dunmore@varrow.example', 'lantern on the quay')
	await other.getByLabel('The six figures').fill(code)
	await other.getByRole('button', { name: 'Go on' }).click()
	await expect(other.getByText('was used before')).toBeVisible()
	// The code of the next half minute is taken already; this one was not used.
	await other.getByLabel('The six figures').fill(totp.generate({ timestamp: Date.now() + 30_000 }))
	await other.getByRole('button', { name: 'Go on' }).click()
	await expect(other.getByRole('link', { name: /Hale Dunmore/ })).toBeVisible()

	// A new password by mail does not do without the code.
	const steward = await signIn(browser, 'Ailith Brand')
	const forgetful = await stranger(browser)
	await forgetful.goto('/forgot')
	await forgetful.getByLabel('Your email').fill('hale.dunmore@varrow.example')
	await forgetful.getByRole('button', { name: 'Send me a link' }).click()
	await forgetful.goto(await linkFor(steward, 'hale.dunmore@varrow.example'))
	await forgetful.getByLabel('A password').fill(NEW_PASSWORD)
	await forgetful.getByRole('button', { name: 'Come in' }).click()
	await expect(forgetful.getByRole('heading', { name: 'Sign in' })).toBeVisible()
	await signInByHand(forgetful, 'hale.dunmore@varrow.example', NEW_PASSWORD)
	await expect(forgetful.getByLabel('The six figures')).toBeVisible()

	await steward.goto('/people')
	await steward.getByRole('link', { name: /Hale Dunmore/ }).click()
	await steward.getByRole('button', { name: 'Take the second step off' }).click()
	await expect(steward.getByText('Signing in asks for their password alone.')).toBeVisible()
	for (const each of [page, other, forgetful, steward]) await each.context().close()
})

test('a forgotten password: the same answer for all, a link for who is here', async ({ browser }) => {
	const page = await stranger(browser)
	const ask = async (email: string) => {
		await page.goto('/forgot')
		await page.getByLabel('Your email').fill(email)
		await page.getByRole('button', { name: 'Send me a link' }).click()
		await expect(page.getByText('If this address belongs to somebody here')).toBeVisible()
	}
	await ask('nobody@varrow.example')
	await ask('ruan.lindqvist@varrow.example')
	const steward = await signIn(browser, 'Ailith Brand')
	const link = await linkFor(steward, 'ruan.lindqvist@varrow.example')
	expect(await (await steward.request.get('/post/__data.json')).text()).not.toContain('nobody@varrow.example')
	await page.goto(link)
	await page.getByLabel('A password').fill(NEW_PASSWORD)
	await page.getByRole('button', { name: 'Come in' }).click()
	await expect(page.getByRole('link', { name: /Ruan Lindqvist/ })).toBeVisible()
	for (const each of [page, steward]) await each.context().close()
})

test('somebody asks at the door, waits through a new sign-in, and is let in while the page stands open', async ({
	browser
}) => {
	const email = 'linnet.oakes@elsewhere.example'
	const crew = await stranger(browser)
	await crew.goto('/app/1')
	await expect(crew).toHaveURL(/\/door\/1$/)
	await crew.getByLabel('Your name').fill('Linnet Oakes')
	await crew.getByLabel('Your email').fill(email)
	await crew.getByLabel('The code').fill('QUAY-1999')
	await crew.getByRole('button', { name: 'Come in' }).click()
	await expect(crew.getByText('That is not a code of this app')).toBeVisible()
	await expect(crew.getByLabel('Your name')).toHaveValue('Linnet Oakes')
	await crew.getByLabel('The code').fill('')
	await crew.getByLabel('Which harbour do you dive at').fill('Orrin Slip, since May')
	await crew.getByRole('button', { name: 'Come in' }).click()
	await expect(crew.getByText(`We have sent a link to ${email}`)).toBeVisible()

	const steward = await signIn(browser, 'Ailith Brand')
	await crew.goto(await linkFor(steward, email, /\/door\/1\/[\w-]+/))
	await crew.getByLabel('A password').fill(NEW_PASSWORD)
	await crew.getByRole('button', { name: 'Come into Mooring Care' }).click()
	await expect(crew.getByText('The harbour office looks at the door each morning')).toBeVisible()
	await crew.request.post('/sign-out', { headers: { origin: new URL(crew.url()).origin } })
	await signInByHand(crew, email, NEW_PASSWORD)
	await crew.getByRole('link', { name: 'Mooring Care' }).click()
	await expect(crew.getByText('The harbour office looks at the door each morning')).toBeVisible()

	await steward.goto('/waiting')
	await expect(steward.getByText('Orrin Slip, since May')).toBeVisible()
	await steward.getByRole('button', { name: 'Let Linnet Oakes in' }).click()
	await expect(crew.getByText('You were let in')).toBeVisible()
	await crew.getByRole('link', { name: 'Open Mooring Care' }).click()
	await expect(crew).toHaveURL(/\/app\/1/)
	await expect(steward.getByText('Linnet Oakes')).toBeHidden()
})

test('a visitor looks in without signing in, and is shown out when the way is closed', async ({ browser }) => {
	const steward = await signIn(browser, 'Ailith Brand')
	await steward.goto('/people?show=ways')
	await steward.getByLabel('Into', { exact: true }).selectOption('Spending')
	await steward.getByLabel('For', { exact: true }).selectOption('Visitors')
	await steward.getByLabel('Gives', { exact: true }).selectOption('the role Trust manager')
	await steward.getByRole('button', { name: 'Open it' }).click()
	const way = steward
		.getByRole('row')
		.filter({ hasText: 'Spending' })
		.filter({ hasText: 'Visitors, without signing in' })
	await expect(way).toBeVisible()

	const visitor = await stranger(browser)
	await visitor.goto('/app/2')
	await visitor.getByRole('button', { name: 'Look in as a visitor' }).click()
	await expect(visitor.getByText(/1[45]\d\s+spend requests/)).toBeVisible()
	expect((await visitor.goto('/me'))?.status()).toBe(403)
	await steward.getByRole('button', { name: 'Close Visitors, without signing in into Spending' }).click()
	await expect(way).toBeHidden()
	await visitor.goto('/app/2')
	await expect(visitor).toHaveURL(/\/sign-in/)
})

test('an app is shared in one press, and whoever gets it is told with its link', async ({ browser }) => {
	const steward = await signIn(browser, 'Ailith Brand')
	await steward.goto('/people?show=sharing')
	await steward.getByLabel('App', { exact: true }).selectOption('Mooring Care')
	await steward
		.getByLabel('With', { exact: true })
		.selectOption({ label: 'Petra Nankivell · petra.nankivell@varrow.example' })
	await expect(steward.getByText('Is in Finance office.')).toBeVisible()
	await steward.getByLabel('As', { exact: true }).selectOption('Trust manager')
	await steward.getByLabel('In your words').fill('For the audit of the moorings.')
	await steward.getByRole('button', { name: 'Share Mooring Care' }).click()
	await expect(steward.getByText('Petra Nankivell has Mooring Care, and is told.')).toBeVisible()
	await expect(steward.getByRole('row', { name: /Petra Nankivell/ })).toContainText('Trust manager')
	expect(await linkFor(steward, 'petra.nankivell@varrow.example', /\/app\/1/)).toBe('/app/1')
	const petra = await signIn(browser, 'Petra Nankivell')
	await petra.goto('/app/1/all')
	await expect(petra.getByText('264 moorings')).toBeVisible()
	// As it was, for the tests that come after.
	await steward.goto('/people')
	await steward.getByRole('link', { name: /Petra Nankivell/ }).click()
	await steward.getByRole('button', { name: /Take .*Trust manager/ }).click()
	await expect(petra.getByText('264 moorings')).toBeHidden()
})

test('a provider outside lets in whom it vouches for, and somebody new at the door of an app', async ({ browser }) => {
	const imke = await stranger(browser)
	await imke.goto('/sign-in?then=/app/1/all')
	await imke.getByRole('link', { name: 'Sign in with Quay Pass' }).click()
	await expect(imke.getByRole('heading', { name: 'Quay Pass' })).toBeVisible()
	await imke.getByRole('link', { name: 'Imke Dahl' }).click()
	// On to the page that was asked for.
	await expect(imke.getByText('71 moorings')).toBeVisible()

	const other = await stranger(browser)
	const choose = async (name: string) => {
		await other.goto('/sign-in')
		await other.getByRole('link', { name: 'Sign in with Quay Pass' }).click()
		await other.getByRole('link', { name }).click()
	}
	await choose('Corin Abel')
	await expect(other.getByText('does not vouch for your address')).toBeVisible()
	await choose('Hedda Lisle')
	await expect(other.getByText('Nobody here has the address hedda.lisle@brig.example')).toBeVisible()

	// The steward opens a way, and keeps passwords for stewards.
	const steward = await signIn(browser, 'Ailith Brand')
	await steward.goto('/people?show=ways')
	await steward.getByLabel('Into', { exact: true }).selectOption('Mooring Care')
	await steward.getByLabel('For', { exact: true }).selectOption('domain')
	await steward.getByLabel('Domain').fill('brig.example')
	await steward.getByLabel('Gives', { exact: true }).selectOption('the role Divers')
	await steward.getByRole('button', { name: 'Open it' }).click()
	await expect(steward.getByText('Addresses at brig.example')).toBeVisible()
	await steward.goto('/people?show=signing')
	await steward.getByRole('button', { name: 'Keep for stewards' }).click()
	await expect(steward.getByText('stewards alone')).toBeVisible()

	await other.goto('/door/1')
	await other.getByRole('link', { name: 'Come in with Quay Pass' }).click()
	await other.getByRole('link', { name: 'Hedda Lisle' }).click()
	await expect(other.getByText('hedda.lisle@brig.example')).toBeVisible()
	await other.getByRole('button', { name: 'Come in' }).click()
	await expect(other).toHaveURL(/\/app\/1/)

	const byHand = await stranger(browser)
	await signInByHand(byHand, 'osric.vane@varrow.example', 'lantern on the quay')
	await expect(byHand.getByText('Passwords serve stewards alone here.')).toBeVisible()

	await steward.getByRole('button', { name: 'Open to everybody' }).click()
	await expect(steward.getByText('stewards alone')).toBeHidden()
	await steward.goto('/people?show=ways')
	await steward.getByRole('button', { name: /Close Addresses at brig/ }).click()
	await expect(steward.getByText('Addresses at brig.example')).toBeHidden()
	for (const page of [imke, other, steward, byHand]) await page.context().close()
})

test('a steward opens a column of people to what builders write, and shuts it again', async ({ browser }) => {
	const steward = await signIn(browser, 'Ailith Brand')
	await steward.goto('/people?show=roles')
	const section = steward.getByRole('region', { name: 'What builders may write of people' })
	const column = section.getByRole('checkbox').first()
	await expect(column).not.toBeChecked()
	await column.check()
	await expect(section.getByRole('status')).toHaveText('Builders may write me.Name.')
	await steward.reload()
	await expect(column).toBeChecked()
	await column.uncheck()
	await expect(section.getByRole('status')).toHaveText('Builders may no longer write me.Name.')
	await steward.reload()
	await expect(column).not.toBeChecked()

	await steward.route('**/people/do', (route) => route.abort())
	await column.click()
	await expect(section.getByRole('alert')).toBeVisible()
	await expect(column).not.toBeChecked()
	await steward.context().close()
})
