/** What a steward says of the workspace as a whole: its name, where it is, and how dates and figures are written there. */
import { AppError } from '$lib/core/app-error.ts'
import { LOCALES, type Locale } from '$lib/core/table/conventions.ts'
import { parseHolidays, printHolidays } from '$lib/core/workspace/holidays.ts'
import { writeHistory } from '../history/history.ts'
import { clockOf, minutesOf } from '$lib/core/schedule/time-of-day.ts'
import { USUAL_HOURS, USUAL_WEEK } from '$lib/core/schedule/working-time.ts'
import type { WorkspaceDocument } from '$lib/core/workspace/document.ts'
import type { ByActor } from '../rights/rights-of-actor.ts'
import { refuseUnlessSteward } from '../rights/stewardship.ts'
import type { Store } from '../store/store.ts'
import { resetClocks } from '../routines/clocks.ts'
import { isTimeZone } from './make.ts'
import { saveWorkspace } from './save.ts'

export interface WorkspaceSettings {
	readonly name: string
	/** A name of the IANA time zone database. */
	readonly timeZone: string
	readonly locale: Locale
	/** Days of the week on which people work, Monday as 0, with commas between. */
	readonly week: string
	/** As `09:00`. */
	readonly from: string
	readonly until: string
	/** One a line. */
	readonly holidays: string
}

export function readSettings(store: Store): WorkspaceSettings {
	const { document, writing } = store.workspace()
	const { name, timeZone, locale = 'en-GB', holidays = [], work } = document
	const { week, from, until } = work ?? { week: USUAL_WEEK, ...USUAL_HOURS }
	return { name, timeZone, locale, week: week.join(), from, until, holidays: printHolidays(holidays, writing) }
}

/** For stewards alone; values stay as they are kept, only how they are read and written changes. */
export function setWorkspace(
	store: Store,
	{ actor, now, ...given }: ByActor & Record<keyof WorkspaceSettings, string>
) {
	refuseUnlessSteward(store, actor)
	const name = given.name.trim()
	if (name === '') throw new AppError('invalid', 'The workspace needs a name.')
	if (name.length > 80) throw new AppError('invalid', 'A name has at most 80 characters.')
	if (!isTimeZone(given.timeZone)) throw new AppError('invalid', 'There is no time zone of that name. Choose one.')
	const locale = LOCALES.find((each) => each === given.locale)
	if (!locale) throw new AppError('invalid', 'Choose how dates and figures are written from the list.')
	const { locale: _was, holidays: before = [], work: workedBefore, ...document } = store.workspace().document
	const was = document.timeZone
	// Typed as the page was written when it was loaded.
	const read = parseHolidays(given.holidays, store.workspace().writing)
	if ('message' in read) throw new AppError('invalid', read.message)
	const { holidays } = read
	if (holidays.length > 1_000)
		throw new AppError('invalid', 'There is room for a thousand days. Take out those that are past.')
	const work = readWork(given)
	const said = {
		...{ name, timeZone: given.timeZone, holidays: [...holidays], work },
		...(locale === 'en-GB' ? {} : { locale })
	}
	saveWorkspace(store, { ...document, ...said }, { now, by: actor.person })
	if (given.timeZone !== was || JSON.stringify([before, workedBefore]) !== JSON.stringify([holidays, work]))
		resetClocks(store, now)
	store.touched.add('access')
	const entry = { at: now, person: actor.person, through: 'Workspace' as const, kind: 'set workspace' }
	writeHistory(store, { ...entry, table: null, row: null, body: { ...said, locale } })
}

function readWork({
	week: days,
	from,
	until
}: Pick<WorkspaceSettings, 'week' | 'from' | 'until'>): NonNullable<WorkspaceDocument['work']> {
	const week = [...new Set(days.split(',').filter((day) => /^[0-6]$/.test(day)).map(Number))].toSorted() // prettier-ignore
	if (week.length === 0) throw new AppError('invalid', 'Choose on which days people work: one at least.')
	const [begins, ends] = [minutesOf(from), minutesOf(until)]
	if (begins === undefined || ends === undefined || begins >= ends)
		throw new AppError('invalid', 'Work begins and ends on one day, as from 09:00 until 17:00.')
	return { week, from: clockOf(begins), until: clockOf(ends) }
}
