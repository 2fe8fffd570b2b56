import { error } from '@sveltejs/kit'
import { conventionsOf, LOCALES } from '$lib/core/table/conventions.ts'
import { showMoney, showNumber } from '$lib/core/table/show-value.ts'
import { figuresOfDate, showInstant } from '$lib/core/table/show-times.ts'
import { seal } from '$lib/server/base/seal.ts'
import { newSecret } from '$lib/server/outside/programs.ts'
import { holidaysByRegion } from '$lib/server/structure/holidays-by-region.ts'
import { printHolidays } from '$lib/core/workspace/holidays.ts'
import { forForm } from '$lib/server/web/answer.ts'
import { getNamed, getNamedActor } from '$lib/server/web/signed-in.ts'

export async function load({ locals }) {
	if (!getNamed(locals).isSteward) error(403, 'Stewards say what the workspace is called and how it writes.')
	const asked = { actor: getNamedActor(locals), now: locals.now }
	const [settings, outgoing, programs] = await Promise.all([
		locals.host.read('settings', undefined),
		locals.host.read('outgoing', undefined),
		locals.host.read('programs', asked)
	])
	return { settings, outgoing, programs, zones: Intl.supportedValuesOf('timeZone'), locales: LOCALES.map(exampleOf) }
}

export const actions = {
	settings: async ({ request, locals }) => {
		const form = await request.formData()
		const text = (name: string) => String(form.get(name) ?? '')
		const given = {
			name: text('name'),
			timeZone: text('timeZone'),
			locale: text('locale'),
			holidays: text('holidays'),
			week: form.getAll('day').join(),
			from: text('from'),
			until: text('until'),
			region: text('region')
		}
		// Enter in any entry presses the first button: with no region named it is to be kept.
		if (form.has('fill') && given.region.trim() !== '') return forForm(given, () => filled(locals, given))
		const { region: _only, ...settings } = given
		return forForm(given, async () => {
			await locals.host.write('setWorkspace', { ...settings, actor: getNamedActor(locals), now: locals.now })
			return { done: 'Kept. Values stay as they are; they are written this way from now on.' }
		})
	},
	addProgram: async ({ request, locals }) => {
		const form = await request.formData()
		const typed = { name: String(form.get('name') ?? ''), address: String(form.get('address') ?? '') }
		const secret = newSecret()
		const done = await forForm({ program: typed }, async () => {
			const sealedSecret = seal(locals.host.key, 'program', secret)
			return { given: await locals.host.write('addProgram', { ...typed, sealedSecret, ...by(locals) }) }
		})
		return 'given' in done ? { given: { ...done.given, secret } } : done
	},
	renewProgram: async ({ request, locals }) => {
		const id = Number((await request.formData()).get('program'))
		const secret = newSecret()
		const done = await forForm({}, async () => {
			const sealedSecret = seal(locals.host.key, 'program', secret)
			return { given: await locals.host.write('renewProgram', { id, sealedSecret, ...by(locals) }) }
		})
		return 'given' in done ? { given: { ...done.given, secret } } : done
	},
	removeProgram: async ({ request, locals }) => {
		const id = Number((await request.formData()).get('program'))
		return forForm({}, async () => void (await locals.host.write('removeProgram', { id, ...by(locals) })))
	},
	outgoing: async ({ request, locals }) => {
		const hold = (await request.formData()).get('hold') === 'yes'
		return forForm({}, async () => {
			await locals.host.write('holdOutgoing', { hold, actor: getNamedActor(locals), now: locals.now })
		})
	}
}

const by = (locals: App.Locals) => ({ actor: getNamedActor(locals), now: locals.now })

/** The form as it was typed, with the holidays of a region besides; nothing is kept yet. */
async function filled<T extends { holidays: string; region: string }>(locals: App.Locals, given: T) {
	const { writing } = await locals.host.read('workspace', undefined)
	const year = new Date(locals.now).getUTCFullYear()
	const today = new Date(locals.now).toISOString().slice(0, 10)
	const days = holidaysByRegion(given.region, [year, year + 1]).filter(({ day }) => day >= today)
	const lines = [given.holidays.trim(), printHolidays(days, writing)].filter((part) => part !== '').join('\n')
	return {
		...given,
		holidays: lines,
		filled: 'Look at the days, then keep them. Those that stand there twice are kept once.'
	}
}

/** A locale by its region and by one of each that is written its way. */
function exampleOf(locale: (typeof LOCALES)[number]) {
	const writing = conventionsOf(locale)
	const region = new Intl.DisplayNames(['en'], { type: 'region' }).of(locale.slice(3)) ?? locale
	const date = `${figuresOfDate('2026-11-28', writing)}, ${showInstant('2026-11-28T14:30:00Z', 'UTC', writing)}`
	return { locale, region, date, figures: `${showNumber(1234.5, { writing })}, ${showMoney(1234.5, '€', writing)}` }
}
