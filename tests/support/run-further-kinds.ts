/**
 * What the program does with a kind of line, step, start and column that it did not have: loaded by a test from sources in which
 * they are, so that nothing here may be named by their types.
 */
import { AppError } from '$lib/core/app-error.ts'
import { appSchema, parseApp } from '$lib/core/app/document.ts'
import { editsBetween } from '$lib/core/app/edits/edits-between.ts'
import { linesFromText, linesToText } from '$lib/core/app/lines/lines-text.ts'
import { compareVersions } from '$lib/core/app/compare-versions.ts'
import { printApp, type Names } from '$lib/core/app/printed.ts'
import { needsColumn, namesColumn, tablesOf } from '$lib/core/app/walk-app.ts'
import { addAppFrom, readDraft, saveDraft } from '$lib/server/apps/apps.ts'
import { checkDraft } from '$lib/server/apps/check-draft.ts'
import { releaseApp } from '$lib/server/apps/release-app.ts'
import { openScreen } from '$lib/server/apps/open-screen.ts'
import { press } from '$lib/server/apps/use-app.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import { readRows } from '$lib/server/rows/read.ts'
import { BUILDER } from '$lib/server/rights/system-roles.ts'
import { changeColumn } from '$lib/server/structure/change-columns.ts'
import { PEOPLE_TABLE, KEEPER, openScratch } from './scratch-store.ts'

const NOW = Date.parse('2026-11-28T12:00:00Z')
const [VESSELS, NAME, BERTH, SIZE] = [2, 20, 21, 22]
const by = { actor: { person: KEEPER }, now: NOW }
const names: Names = {
	tables: [
		{
			...{ id: VESSELS, name: 'vessels' },
			columns: [
				{ id: NAME, name: 'name', type: 'text' },
				{ id: BERTH, name: 'berth', type: 'tide' }
			]
		}
	],
	roles: []
}

/** JSON as a newer document has it, which the types of today's do not. */
const APP = {
	...{ format: 3, name: 'Care', about: '', colour: 'sea', signoffs: [] },
	screens: [
		{
			...{ id: 's', title: 'Vessels' },
			lines: [
				{ id: 't', kind: 'sounding', title: 'Herons', table: VESSELS, column: NAME, where: 'name = "Heron"' },
				{ id: 'b', kind: 'button', label: 'Ring', does: { kind: 'run', routine: 'r' } }
			]
		}
	],
	routines: [
		{
			...{ id: 'r', name: 'Ring', start: { kind: 'bell', table: VESSELS } },
			steps: [{ id: 'x', kind: 'ring', column: BERTH, formula: 'UPPER(name)' }]
		}
	]
}

function open() {
	const store = openScratch({
		now: NOW,
		roles: [{ id: BUILDER, name: 'Builders', includes: [] }],
		// A type that this workspace's schema knows by now.
		tables: [
			{
				...{ id: VESSELS, name: 'vessels', keepers: [KEEPER], label: NAME },
				columns: [
					{ id: NAME, name: 'name', type: 'text' },
					{ id: BERTH, name: 'berth', type: 'tide' as 'code' },
					{ id: SIZE, name: 'size', type: 'reference', to: PEOPLE_TABLE, reverseName: 'vessels' }
				]
			}
		]
	})
	store.db.exec(`INSERT INTO role_held (person, role) VALUES (${KEEPER}, ${BUILDER})`)
	const [heron] = changeRows(
		store,
		[{ kind: 'add', table: VESSELS, cells: [{ column: NAME, value: 'Heron' }, { column: BERTH, value: 'a 1' }] }], // prettier-ignore
		{ ...by, through: 'grid' }
	)
	const document = parseApp(JSON.stringify(APP))
	const app = addAppFrom(store, { document, ...by })
	return { store, app, heron: heron?.row ?? '', document }
}

function refusedWith(run: () => unknown): string {
	try {
		run()
	} catch (error) {
		if (error instanceof AppError) return error.message
		throw error
	}
	return ''
}

/** What each part of the program made of the new kinds. */
export function runFurtherKinds() {
	const { store, app, heron, document } = open()
	const vocabulary = { ...names, ...document }
	const [screen] = document.screens
	const text = linesToText(screen?.lines ?? [], vocabulary)
	const back = linesFromText(text, vocabulary, () => 'new')
	const other = appSchema.parse(
		JSON.parse(JSON.stringify(document).replace('Heron', 'Gannet').replace('UPPER', 'LOWER'))
	)
	const told = {
		kinds: screen?.lines.map(({ kind }) => kind),
		text,
		again: back?.lines.map(({ id: _, ...line }) => line),
		problems: back?.problems,
		printed: printApp(document, names).flatMap(({ lines }) => lines.map((line) => line.text)),
		compared: compareVersions(document, other, names).map(({ place }) => place),
		tables: tablesOf(document).map(({ place }) => place),
		names: namesColumn(screen?.lines ?? [], NAME),
		needs: needsColumn(document, BERTH)
	}
	changeColumn(store, { table: VESSELS, column: NAME, words: { name: 'called' }, ...by })
	const renamed = JSON.stringify(readDraft(store, app).document)
	releaseApp(store, { app, note: '', ...by })
	const shown = openScreen(store, { app, draft: false, ...by }).screen?.lines.map(({ kind }) => kind)
	press(store, { app, draft: false, screen: 's', line: 'b', row: heron, ...by })
	const read = readRows(
		store,
		by.actor,
		{ table: VESSELS, columns: [BERTH], where: ['berth = "HERON"'], limit: 5 },
		NOW
	)
	const broken = JSON.parse(renamed.replace('called = ', 'nothing = ').replace('UPPER(called)', 'UPPER(nobody)'))
	const { version, document: now } = readDraft(store, app)
	saveDraft(store, { app, version, edits: editsBetween(now, appSchema.parse(broken)), ...by })
	return {
		...told,
		renamed,
		shown,
		rows: read.rows.length,
		found: checkDraft(store, { app, now: NOW }).map(({ place, message }) => `${place}: ${message}`),
		kept: refusedWith(() => releaseApp(store, { app, note: '', ...by }))
	}
}
