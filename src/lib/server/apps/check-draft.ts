/** The check of a draft before a release, by what is in the workspace at that moment. */
import type { AppDocument } from '$lib/core/app/document.ts'
import { checkAccess } from '$lib/core/app/check-access.ts'
import { checkApp } from '$lib/core/app/check-app.ts'
import { mapFormulas, tablesOf } from '$lib/core/app/walk-app.ts'
import type { Finding } from '$lib/core/document/findings.ts'
import { check } from '$lib/core/formula/check/check.ts'
import { scopeOf } from '$lib/core/formula/check/rename.ts'
import { findTooDear } from '../derived/formula-cost.ts'
import { checkPrograms } from '../outside/check-programs.ts'
import type { Store } from '../store/store.ts'
import { brokenExamples } from '../structure/examples.ts'
import { readDraft, readVersion } from './apps.ts'

interface CheckedDraft {
	readonly app: number
	readonly now: number
	/** The newest, if left out. */
	readonly version?: number | undefined
}

/** Everything to mend or to look at before a release: the document, access, and examples of the tables it uses. */
export function checkDraft(store: Store, { app, now, version }: CheckedDraft): Finding[] {
	const workspace = store.workspace()
	const document = version === undefined ? readDraft(store, app).document : readVersion(store, { app, version })
	const used = new Set(tablesOf(document).map(({ table }) => table))
	const broken = brokenExamples(store, now)
		.filter(({ table }) => used.has(table.id))
		.map(({ table, says }): Finding => ({
			weight: 'mistake',
			place: `An example of ${table.name}`,
			spot: { bay: 'access', table: table.id },
			message: `${says}. Change the lines at Access, or take the example off there.`
		}))
	const found = [...checkApp(document, workspace), ...broken]
	return [
		...found,
		...checkPrograms(store, document),
		...findTooDearIn(store, document),
		...checkAccess(document, workspace)
	]
}

/** Conditions and formulas that nobody would wait for. */
function findTooDearIn(store: Store, document: AppDocument): Finding[] {
	const { catalogue } = store.workspace()
	const found: Finding[] = []
	mapFormulas(document, (text, standing, place) => {
		const { table, outer = table } = standing
		const isThere = [table, outer].every((each) => each === undefined || catalogue.tables.has(each))
		const { expr } = isThere ? check(text, scopeOf(standing, catalogue)) : { expr: undefined }
		const wrong = expr && findTooDear(store, expr)
		if (wrong !== undefined) found.push({ weight: 'mistake', place, message: `"${text}" asks for too much. ${wrong}` })
		return text
	})
	return found
}
