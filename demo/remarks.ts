/** What visiting crews say of their stay at the counter, and how the office looks at it. */
import type { ScreenInput } from '../src/lib/core/app/document.ts'
import type { NewColumn } from '../src/lib/server/structure/tables.ts'
import type { Columns } from './mooring-screens.ts'
import type { Random } from './random.ts'
import { ROLE_IDS } from './tables.ts'

const STAYS = ['Very good', 'Good', 'All right', 'Poor'] as const
const REASONS = ['Noise', 'Swell', 'Showers', 'Price', 'Something else'] as const

export const remarkColumns = (harbours: number): NewColumn[] => [
	{ name: 'Stay', type: 'choice', choices: [...STAYS], required: true },
	{ name: 'Harbour', type: 'reference', to: harbours, reverseName: 'remarks' },
	{ name: 'Reason', type: 'choice', choices: [...REASONS] },
	{ name: 'In words', type: 'text' },
	{ name: 'Said', type: 'date' }
]

/** Crews say it and see nobody's. */
export function remarkLines() {
	const all = { kind: 'all' as const }
	const own = 'Harbour = me.Harbour'
	return [
		{ role: ROLE_IDS['Visiting crews'], verbs: ['add' as const], where: '', columns: all },
		{ role: ROLE_IDS['Berth clerks'], verbs: ['see' as const], where: own, columns: all },
		{ role: ROLE_IDS['Harbour masters'], verbs: ['see' as const], where: own, columns: all },
		{ role: ROLE_IDS['Trust manager'], verbs: ['see' as const], where: '', columns: all }
	]
}

const WORDS = ['The pontoon creaks all night', 'Hot water was out', 'A friendly welcome, thank you', 'Wash from the ferry', 'More than last year'] // prettier-ignore

export interface RemarkRow {
	/** Which of the harbours, counted from 0. */
	readonly harbour: number
	readonly cells: Readonly<Record<string, string>>
}

/** 320 remarks over half a year. @param harbours how many there are; `today`: a date as text */
export function remarkRows(random: Random, harbours: number, today: string): RemarkRow[] {
	return Array.from({ length: 320 }, () => {
		const stay = random.pick(['Very good', 'Very good', 'Good', 'Good', 'Good', 'All right', 'Poor'] as const)
		const isPoor = stay === 'All right' || stay === 'Poor'
		const said = new Date(Date.parse(today) - random.below(180) * 86_400_000).toISOString().slice(0, 10)
		return {
			harbour: random.below(harbours),
			cells: {
				...{ Stay: stay, Said: said },
				...(isPoor ? { Reason: random.pick(REASONS) } : {}),
				...(random.chance(isPoor ? 0.5 : 0.1) ? { 'In words': random.pick(WORDS) } : {})
			}
		}
	})
}

/** The questions at the counter, and what came of them for the office. */
export function remarkScreens(table: number, remark: Columns, harbours: number): ScreenInput[] {
	const staff = (['Berth clerks', 'Harbour masters', 'Trust manager'] as const).map((role) => ROLE_IDS[role])
	return [
		{
			...{ id: 'ask', title: 'How was it?', icon: 'star', who: [ROLE_IDS['Visiting crews']] },
			lines: [
				{ id: 'ask-0', kind: 'hold', what: 'a row', rows: harbours, holds: 'quay' },
				{
					...{ id: 'ask-1', kind: 'steps', table, thanks: 'Thank you. The harbour office reads every answer.' },
					lines: [
						{ id: 'ask-2', kind: 'with', value: 'here.quay', as: 'Harbour' },
						{
							...{ id: 'ask-3', kind: 'ask', column: remark('Stay'), question: 'How was your stay?' },
							lines: [
								{ id: 'ask-4', kind: 'answer', value: 'Very good', tone: 'sound' },
								{ id: 'ask-5', kind: 'answer', value: 'Good', tone: 'sound' },
								{ id: 'ask-6', kind: 'answer', value: 'All right', tone: 'look' },
								{ id: 'ask-7', kind: 'answer', value: 'Poor', tone: 'past' }
							]
						},
						{
							...{ id: 'ask-8', kind: 'ask', column: remark('Reason'), question: 'What could be better?' },
							when: 'Stay = "All right" or Stay = "Poor"'
						},
						{
							...{ id: 'ask-9', kind: 'ask', column: remark('In words'), skips: 'which may be skipped' },
							question: 'Is there anything else you would like to say?'
						}
					]
				},
				{ id: 'ask-10', kind: 'timer', screen: 'start', seconds: 90, keeps: 'quay' }
			]
		},
		{
			...{ id: 'said', title: 'What crews say', icon: 'star', who: staff },
			lines: [
				{ id: 'said-1', kind: 'heading', text: 'What crews say of their stay' },
				{ id: 'said-2', kind: 'filter', table, column: remark('Stay'), holds: 'stay', label: 'Their stay' },
				{
					...{ id: 'said-3', kind: 'chart', table, measure: { of: 'count', column: null }, title: 'Answers by week' },
					...{ where: 'Said >= TODAY() - 84', by: { column: remark('Said'), step: 'weeks' } },
					parted: { column: remark('Stay'), step: null }
				},
				{
					...{ id: 'said-4', kind: 'beside', as: '1 to 1' },
					lines: [
						{
							...{ id: 'said-5', kind: 'chart', table, measure: { of: 'count', column: null } },
							...{ where: 'not ISBLANK(Reason)', by: { column: remark('Reason'), step: null } },
							...{ once: 'Stay = here.stay', title: 'What could be better' }
						},
						{
							...{ id: 'said-6', kind: 'chart', table, measure: { of: 'count', column: null }, where: '' },
							...{ by: { column: remark('Harbour'), step: null }, parted: { column: remark('Stay'), step: null } },
							...{ as: 'as shares', title: 'Their stay by harbour' }
						}
					]
				},
				{
					...{ id: 'said-7', kind: 'list', table, where: "not ISBLANK('In words')", once: 'Stay = here.stay' },
					...{ sort: [{ column: remark('Said'), descending: true }], opens: null, limit: 12 },
					columns: ['In words', 'Stay', 'Reason', 'Said'].map(remark)
				}
			]
		}
	]
}
