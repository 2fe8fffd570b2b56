/** Whom the two views of the Lookout show, while answers are on their way: never one person's app under another's name. */
import { afterEach, describe, expect, test, vi } from 'vitest'
import { Look, Looks } from './looks.svelte.ts'

const APP = 1
const [IMKE, PETRA, SASKIA] = [11, 12, 13]
const PEOPLE = [
	{ person: IMKE, name: 'Imke Dahl', roles: ['Divers'] },
	{ person: PETRA, name: 'Petra Nankivell', roles: ['Finance'] },
	{ person: SASKIA, name: 'Saskia Holm', roles: ['Builders'] }
]

/** Answers by hand, in any order: what is asked waits until it is told what comes back. */
function answering() {
	const waiting: { readonly asked: unknown; readonly answer: (value: unknown, status?: number) => void }[] = []
	vi.stubGlobal(
		'fetch',
		(_address: string, init?: RequestInit) =>
			new Promise<Response>((resolve) => {
				const asked: unknown = init?.body === undefined ? undefined : JSON.parse(String(init.body))
				waiting.push({ asked, answer: (value, status = 200) => resolve(Response.json(value, { status })) })
			})
	)
	return waiting
}

afterEach(() => vi.unstubAllGlobals())

describe('a view', () => {
	test('shows nothing of whoever was looked as before, from the moment somebody else is chosen', async () => {
		const waiting = answering()
		const view = new Look('desk')
		const first = view.begin(APP, IMKE)
		waiting[0]?.answer({ token: 'of Imke' })
		await first
		view.sees = { rows: new Map() } as unknown as NonNullable<Look['sees']>
		expect(view.token).toBe('of Imke')

		const second = view.begin(APP, PETRA)
		expect(view).toMatchObject({ person: PETRA, token: '', wrong: '', sees: undefined })
		waiting[1]?.answer({ token: 'of Petra' })
		await second
		expect(view.token).toBe('of Petra')
	})

	test('does not take the late answer of an earlier choice', async () => {
		const waiting = answering()
		const view = new Look('desk')
		const [first, second] = [view.begin(APP, IMKE), view.begin(APP, PETRA)]
		waiting[1]?.answer({ token: 'of Petra' })
		await second
		waiting[0]?.answer({ token: 'of Imke' })
		await first
		expect(view).toMatchObject({ person: PETRA, token: 'of Petra' })
	})

	test('says why there is none', async () => {
		const waiting = answering()
		const view = new Look('phone')
		const begun = view.begin(APP, IMKE)
		waiting[0]?.answer({ code: 'forbidden', message: 'This app is kept by somebody else.', details: {} }, 403)
		await begun
		expect(view).toMatchObject({ token: '', wrong: 'This app is kept by somebody else.' })
	})
})

describe('the two views', () => {
	test('open as two people who see something, once that is known', async () => {
		const waiting = answering()
		const looks = new Looks(APP, () => PEOPLE)
		const opened = looks.open()
		const tables = [{ id: 3, name: 'Moorings', owned: true }]
		waiting[0]?.answer({
			tables,
			people: PEOPLE.map(({ person }) => ({ person, tables: person === SASKIA ? [] : [3] }))
		})
		await opened
		expect(looks.views.map((view) => view.person)).toEqual([IMKE, PETRA])
		expect(waiting.slice(1).map(({ asked }) => asked)).toEqual([
			{ kind: 'begin', app: APP, person: IMKE },
			{ kind: 'begin', app: APP, person: PETRA }
		])
		expect(looks.views.map((view) => looks.whyNothing(view))).toEqual([undefined, undefined])
	})

	test('say in both places that it could not be asked', async () => {
		const waiting = answering()
		const looks = new Looks(APP, () => PEOPLE)
		const opened = looks.open()
		waiting[0]?.answer({ code: 'busy', message: 'Wait a moment.', details: {} }, 429)
		await opened
		expect(looks.views.map((view) => [view.person, view.wrong])).toEqual([
			[0, 'Wait a moment.'],
			[0, 'Wait a moment.']
		])
	})
})
