import { getUser } from '$lib/server/web/signed-in.ts'

export async function load({ locals }) {
	const user = getUser(locals)
	const { host, now } = locals
	const actor = { person: user.person }
	const [open, all, bench, cases, asks, waitsAt] = await Promise.all([
		host.read('appsFor', { actor, now }),
		user.isBuilder ? host.read('apps', undefined) : Promise.resolve([]),
		user.isBuilder ? host.read('bench', { actor, now }) : Promise.resolve(undefined),
		host.read('cases', { actor, now }),
		host.read('asks', { actor, now }),
		host.read('waitsAt', actor)
	])
	const openIds = new Set(open.map((app) => app.id))
	const apps = user.isBuilder
		? all.map((app) => ({ ...app, open: openIds.has(app.id) }))
		: open.map((app) => ({ ...app, open: true }))
	const sources = (bench?.tables ?? []).flatMap((table) =>
		table.source ? [{ table: table.name, ...table.source, rows: table.rows }] : []
	)
	const waits = [
		...asks.map(({ id, subject, label, askedAt }) => ({
			href: `/waiting/ask/${id}`,
			name: subject,
			about: label,
			askedAt
		})),
		...cases.waiting.map(({ id, label, name, askedBy, askedAt }) => ({
			...{ href: `/waiting/${id}`, name: label, about: `${name} · from ${askedBy}`, askedAt }
		}))
	]
	return {
		apps,
		sources,
		waitsAt,
		waits: waits.slice(0, 6),
		decided: cases.asked.filter((each) => each.state !== 'waiting').slice(0, 5)
	}
}
