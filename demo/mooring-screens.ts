/** Two screens of Mooring Care: what is looked at first thing, and where the moorings lie. */
import type { ScreenInput } from '../src/lib/core/app/document.ts'
import type { AppFile } from '../src/lib/core/document/parts.ts'
import { ROLE_IDS } from './tables.ts'

export interface Columns {
	/** The number of a column by its name. */
	(name: string): number
}

export interface MooringTables {
	readonly moorings: number
	readonly mooring: Columns
	readonly inspections: number
	readonly inspection: Columns
	readonly harbours: number
	readonly harbour: Columns
	readonly work: number
	readonly order: Columns
	/** The coast round them, as GeoJSON. */
	readonly ground: AppFile
}

/** What who looks after a harbour looks at first thing. */
export function overview({ moorings, mooring, inspections, inspection }: MooringTables): ScreenInput {
	const figure = (id: string, parts: object) => ({ id, kind: 'figure', measure: COUNT, ...parts }) as LineInput
	const thisMonth = 'Date >= DATE(YEAR(TODAY()); MONTH(TODAY()); 1)'
	const lastMonth =
		'Date >= DATE(YEAR(TODAY()); MONTH(TODAY()) - 1; 1) and Date < DATE(YEAR(TODAY()); MONTH(TODAY()); 1)'
	return {
		...{ id: 'overview', title: 'Overview', icon: 'chart' },
		who: [ROLE_IDS['Harbour masters'], ROLE_IDS['Trust manager'], ROLE_IDS.Builders],
		lines: [
			{ id: 'overview-1', kind: 'heading', text: 'The moorings today' },
			figure('overview-2', { label: 'due within four weeks', table: moorings, where: 'due soon', opens: 'sheet' }),
			figure('overview-3', {
				...{ label: 'past due', table: moorings, where: "'Next due' < TODAY()", opens: 'sheet' },
				ago: 'EDATE(TODAY(); -1)'
			}),
			figure('overview-4', {
				...{ label: 'inspected this month', table: inspections, where: thisMonth, opens: 'inspection' },
				...{ than: lastMonth, called: 'in the month before' }
			}),
			{
				...{ id: 'overview-5', kind: 'chart', table: inspections, measure: COUNT, opens: 'inspection' },
				where: 'Date >= EDATE(DATE(YEAR(TODAY()); MONTH(TODAY()); 1); -11)',
				by: { column: inspection('Date'), step: 'months' },
				parted: { column: inspection('Verdict'), step: null },
				title: 'Inspections by month and verdict'
			},
			{
				...{ id: 'overview-6', kind: 'tabs' },
				lines: [
					{
						...{ id: 'overview-7', kind: 'tab', title: 'Day by day' },
						lines: [
							{
								...{
									id: 'overview-8',
									kind: 'chart',
									table: inspections,
									measure: COUNT,
									where: '',
									opens: 'inspection'
								},
								...{
									by: { column: inspection('Date'), step: 'days' },
									as: 'as a calendar',
									title: 'Inspections day by day'
								}
							}
						]
					},
					{
						...{ id: 'overview-9', kind: 'tab', title: 'How deep they lie' },
						lines: [
							{
								...{ id: 'overview-10', kind: 'chart', table: moorings, measure: COUNT, where: '', opens: 'sheet' },
								by: { column: mooring('Depth'), step: 'bands' },
								parted: { column: mooring('Type'), step: null },
								title: 'Moorings by depth and type'
							}
						]
					},
					{
						...{ id: 'overview-11', kind: 'tab', title: 'How chains wear' },
						lines: [
							{
								...{ id: 'overview-12', kind: 'scatter', table: moorings, where: '', opens: 'sheet' },
								...{ up: mooring('Worn'), across: mooring('Depth') },
								parted: { column: mooring('Type'), step: null },
								title: 'Wear of the chain against depth'
							}
						]
					}
				]
			}
		]
	}
}

/** Where they lie, by how they are laid, and which are to be looked at. */
export function mapOfMoorings({ moorings, mooring, ground }: MooringTables): ScreenInput {
	return {
		...{ id: 'map', title: 'Where they lie', label: 'Map', icon: 'place' },
		who: [ROLE_IDS.Divers, ROLE_IDS['Harbour masters'], ROLE_IDS.Builders],
		lines: [
			{ id: 'map-1', kind: 'heading', text: 'Where the moorings lie' },
			{
				...{ id: 'map-2', kind: 'map', table: moorings, where: '', at: mooring('Position'), by: mooring('Type') },
				...{ columns: ['Code', 'Type', 'Next due'].map(mooring), ground, opens: 'sheet' },
				lines: [
					{ id: 'map-3', kind: 'mark', word: 'past due', tone: 'past', where: 'Next due < TODAY()' },
					{ id: 'map-4', kind: 'mark', word: 'due soon', tone: 'look', where: 'due soon' }
				]
			}
		]
	}
}

const COUNT = { of: 'count', column: null } as const

type LineInput = NonNullable<ScreenInput['lines']>[number]
