/**
 * The document of an app as a file, for version control: speaks to the running program as one of its builders, and may no more
 * than that builder may.
 *
 *     npm run app -- export 1 mooring-care.json
 *     npm run app -- compare 1 mooring-care.json
 *     npm run app -- import 1 mooring-care.json
 *     npm run app -- check 1
 *
 * Where it runs and as whom: TIN_SHED_URL (http://127.0.0.1:4700, if left out), TIN_SHED_EMAIL, TIN_SHED_PASSWORD, and TIN_SHED_CODE
 * where a second step is asked for. Ends with 1 where the check finds what keeps a release back, where two versions differ, and
 * where something was refused.
 */
import { readFile, writeFile } from 'node:fs/promises'

const USE = 'npm run app -- check APP | export APP FILE | import APP FILE | compare APP FILE'
const { TIN_SHED_URL = 'http://127.0.0.1:4700', TIN_SHED_EMAIL, TIN_SHED_PASSWORD, TIN_SHED_CODE } = process.env
const origin = TIN_SHED_URL.replace(/\/+$/, '')
const [does, app, file] = process.argv.slice(2)

const WAYS = {
	async check() {
		const found = await post({ kind: 'check' })
		for (const { weight, place, message } of found) console.log(`${weight}: ${place}: ${message}`)
		if (found.length === 0) console.log('The check found nothing.')
		return found.some(({ weight }) => weight === 'mistake') ? 1 : 0
	},
	async export() {
		const answer = await ask('GET', `/bench/${app}/document`)
		if (!answer.ok) throw new Error(await refusalIn(answer))
		await writeFile(file, await answer.text())
		return 0
	},
	async compare() {
		const { parts } = await post({ kind: 'compare', text: await readFile(file, 'utf8') })
		for (const { place, differences } of parts) {
			console.log(place)
			for (const { kind, number, pieces } of differences)
				console.log(`  ${kind} ${number} ${pieces.map(asText).join('')}`)
		}
		return parts.length > 0 ? 1 : 0
	},
	async import() {
		const { version } = await post({ kind: 'put', text: await readFile(file, 'utf8') })
		console.log(`The draft is version ${version} now. Staff use it once it is released.`)
		return 0
	}
}

/** What was is in square brackets with a stroke, what is now with a plus. */
function asText({ kind, text }) {
	if (kind === 'same') return text
	return kind === 'old' ? `[-${text}-]` : `[+${text}+]`
}

let cookie = ''

async function ask(method, path, { form, body } = {}) {
	const headers = { origin, cookie, accept: 'application/json' }
	const sent = form ? new URLSearchParams(form) : body && JSON.stringify(body)
	if (body) headers['content-type'] = 'application/json'
	const answer = await fetch(origin + path, { method, headers, body: sent, redirect: 'manual' })
	const set = answer.headers.getSetCookie().map((each) => each.split(';')[0])
	cookie = [cookie, ...set].filter(Boolean).join('; ')
	return answer
}

async function post(body) {
	const answer = await ask('POST', `/bench/${app}/document`, { body })
	if (!answer.ok) throw new Error(await refusalIn(answer))
	return answer.json()
}

async function refusalIn(answer) {
	const said = await answer.json().catch(() => ({}))
	return said.message ?? `${origin} answered ${answer.status}.`
}

async function signIn() {
	if (!TIN_SHED_EMAIL || !TIN_SHED_PASSWORD)
		throw new Error('Say as whom: set TIN_SHED_EMAIL and TIN_SHED_PASSWORD to those of a builder.')
	const form = { email: TIN_SHED_EMAIL, password: TIN_SHED_PASSWORD }
	const first = await (await ask('POST', '/sign-in?/password', { form })).json()
	if (first.type === 'redirect') return
	if (first.type !== 'success') throw new Error('Address and password do not belong together here.')
	// A ticket: the second step is still to come. Data of an action is a list in which values stand by their places.
	const [places, ...values] = JSON.parse(first.data)
	const ticket = values[places.ticket - 1]
	if (!TIN_SHED_CODE) throw new Error('A code is asked for as well: set TIN_SHED_CODE to the one of this minute.')
	const second = await (await ask('POST', '/sign-in?/code', { form: { ticket, code: TIN_SHED_CODE } })).json()
	if (second.type !== 'redirect') throw new Error('The code was not taken. Take the one of this minute.')
}

if (!(does in WAYS) || !/^\d+$/.test(app ?? '') || (does !== 'check' && !file)) {
	console.error(USE)
	process.exit(2)
}
try {
	await signIn()
	process.exitCode = await WAYS[does]()
} catch (error) {
	const isAway = error.cause?.code === 'ECONNREFUSED'
	console.error(isAway ? `Nothing answers at ${origin}. Start Tin Shed, or set TIN_SHED_URL.` : error.message)
	process.exitCode = 1
}
