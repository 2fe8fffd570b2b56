import QRCode from 'qrcode'
import { forForm } from '$lib/server/web/answer.ts'
import { getBuilder } from '$lib/server/web/signed-in.ts'

export async function load({ locals, params, depends, url }) {
	depends('app:draft')
	const actor = getBuilder(locals)
	const app = Number(params.app)
	const { host, now } = locals
	const [current, findings, releases, word, planned, gained, openings] = await Promise.all([
		host.read('draft', { app }),
		host.read('lookOver', { app, actor, now }),
		host.read('releases', { app }),
		host.read('wordOf', { app }),
		host.read('plannedRelease', { app }),
		host.read('screensGained', { app, actor, now }),
		host.read('openings', { app, actor, now })
	])
	// What staff use and the draft, unless other two are asked for.
	const from = Number(url.searchParams.get('from') ?? current.live)
	const to = Number(url.searchParams.get('to') ?? 0)
	const [before, after] = await Promise.all([
		host.read('release', { app, number: from }),
		to === 0 ? current.document : host.read('release', { app, number: to })
	])
	const compared = { from, to, before, after }
	const address = host.origin + (word === '' ? `/app/${app}` : `/to/${word}`)
	const code = await QRCode.toString(address, { type: 'svg', margin: 2 })
	return {
		current: { live: current.live, ahead: current.ahead },
		findings,
		openings,
		releases,
		planned,
		gained,
		compared,
		address,
		code,
		word,
		origin: host.origin
	}
}

export const actions = {
	release: async ({ request, locals, params }) => {
		const actor = getBuilder(locals)
		const form = await request.formData()
		const note = String(form.get('note') ?? '').slice(0, 500)
		const asked = { app: Number(params.app), note, tells: form.has('tells'), actor, now: locals.now }
		const at = Number(form.get('at') ?? 0)
		return forForm({}, async () => {
			if (at === 0) return { released: await locals.host.write('releaseApp', asked) }
			await locals.host.write('planRelease', { ...asked, at })
			return { planned: true }
		})
	},
	callOff: async ({ locals, params }) => {
		const actor = getBuilder(locals)
		return forForm({}, async () => {
			await locals.host.write('callOffRelease', { app: Number(params.app), actor, now: locals.now })
			return { calledOff: true }
		})
	},
	word: async ({ request, locals, params }) => {
		const actor = getBuilder(locals)
		const word = String((await request.formData()).get('word') ?? '')
		return forForm({ typed: word }, async () => {
			await locals.host.write('setWord', { app: Number(params.app), word, actor, now: locals.now })
			return { worded: true }
		})
	},
	putBack: async ({ request, locals, params }) => {
		const actor = getBuilder(locals)
		const number = Number((await request.formData()).get('number'))
		return forForm({}, async () => {
			await locals.host.write('putBackRelease', { app: Number(params.app), number, actor, now: locals.now })
			return { putBack: number }
		})
	}
}
