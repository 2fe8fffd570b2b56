/** The trust's apps, as documents. */
import type { AppInput, ScreenInput } from '../src/lib/core/app/document.ts'
import { APP_FORMAT } from '../src/lib/core/app/document.ts'
import { mapOfMoorings, overview, type Columns, type MooringTables } from './mooring-screens.ts'
import { ROLE_IDS } from './tables.ts'
import { workScreens } from './work.ts'
import { mooringRoutines } from './routines.ts'

/** Who may write when a mooring was looked at. */
const LOOKERS = [ROLE_IDS.Divers, ROLE_IDS['Harbour masters'], ROLE_IDS.Builders]

export function mooringCare(tables: MooringTables): AppInput {
	const { moorings, mooring, inspections, inspection, harbours, harbour } = tables
	const sheet: ScreenInput = {
		id: 'sheet',
		title: 'Mooring sheet',
		lines: [
			{
				id: 'sheet-1',
				kind: 'record',
				table: moorings,
				columns: [
					'Harbour',
					'Type',
					'Depth',
					'Position',
					'Last look',
					'Next due',
					'Chain',
					'Chain read',
					'Worn',
					'Times inspected',
					'Holder',
					'Holder phone',
					'Arrears',
					'Note'
				].map(mooring)
			},
			{
				id: 'sheet-2',
				kind: 'button',
				label: 'Looked at today',
				does: { kind: 'run', routine: 'looked' },
				who: LOOKERS
			},
			{
				...{ id: 'sheet-order', kind: 'button', label: 'Order new tackle', who: [ROLE_IDS['Harbour masters']] },
				does: { kind: 'run', routine: 'order' }
			},
			{
				id: 'sheet-3',
				kind: 'section',
				title: 'Its inspections',
				lines: [
					{
						id: 'sheet-4',
						kind: 'list',
						table: inspections,
						where: '',
						of: inspection('Mooring'),
						sort: [{ column: inspection('Date'), descending: true }],
						columns: ['Date', 'Diver', 'Remark', 'Photo'].map(inspection),
						opens: 'inspection',
						empty: 'It has not been inspected yet.',
						lines: [
							{ id: 'sheet-5', kind: 'mark', word: 'replace', tone: 'past', where: 'Verdict = "Replace"' },
							{ id: 'sheet-6', kind: 'mark', word: 'watch', tone: 'look', where: 'Verdict = "Watch"' },
							{ id: 'sheet-7', kind: 'mark', word: 'sound', tone: 'sound', where: 'Verdict = "Sound"' }
						]
					}
				]
			}
		]
	}
	return {
		format: APP_FORMAT,
		name: 'Mooring Care',
		about: 'Register, inspections and findings',
		colour: 'sea',
		screens: [
			{
				id: 'due',
				title: 'Due',
				icon: 'calendar',
				lines: [
					{ id: 'due-1', kind: 'heading', text: 'Due within four weeks' },
					{
						id: 'due-2',
						kind: 'list',
						table: moorings,
						where: 'due soon',
						sort: [{ column: mooring('Next due'), descending: false }],
						columns: ['Code', 'Harbour', 'Type', 'Next due'].map(mooring),
						opens: 'sheet',
						filters: ['Harbour', 'Type'].map(mooring),
						empty: 'Nothing is due within four weeks.',
						lines: [
							{ id: 'due-4', kind: 'mark', word: 'past due', tone: 'past', where: "'Next due' < TODAY()" },
							{ id: 'due-5', kind: 'mark', word: 'this week', tone: 'look', where: "'Next due' <= TODAY() + 7" },
							{
								...{ id: 'due-6', kind: 'button', label: 'Looked at today', who: LOOKERS },
								does: { kind: 'run', routine: 'looked' }
							}
						]
					},
					{ id: 'due-3', kind: 'button', label: 'New inspection', does: { kind: 'open', screen: 'inspect' } }
				]
			},
			{
				id: 'all',
				title: 'Moorings',
				icon: 'anchor',
				lines: [
					{ id: 'all-1', kind: 'heading', text: 'All moorings' },
					{
						id: 'all-2',
						kind: 'list',
						table: moorings,
						where: '',
						sort: [{ column: mooring('Code'), descending: false }],
						columns: ['Code', 'Harbour', 'Type', 'Depth', 'Holder', 'Arrears'].map(mooring),
						opens: 'sheet',
						group: mooring('Harbour'),
						finds: ['Code', 'Holder'].map(mooring),
						filters: ['Harbour', 'Type'].map(mooring)
					}
				]
			},
			mapOfMoorings(tables),
			overview(tables),
			...workScreens(tables.work, tables.order, tables.ground),
			sheet,
			{
				id: 'harbours',
				title: 'By harbour',
				icon: 'place',
				lines: [
					{
						...{ id: 'harbours-1', kind: 'beside', as: '1 to 2' },
						who: [ROLE_IDS['Trust manager'], ROLE_IDS.Builders],
						lines: [
							{
								...{ id: 'harbours-2', kind: 'section', title: 'Harbours' },
								lines: [
									{
										...{ id: 'harbours-3', kind: 'list', table: harbours, where: '', opens: null, holds: 'harbour' },
										sort: [{ column: harbour('Name'), descending: false }],
										columns: ['Name', 'Master'].map(harbour)
									}
								]
							},
							{
								...{ id: 'harbours-4', kind: 'section', title: 'Due there within four weeks' },
								lines: [
									{
										...{ id: 'harbours-5', kind: 'list', table: moorings, opens: 'sheet', as: 'a table' },
										where: 'Harbour = here.harbour and due soon',
										sort: [{ column: mooring('Next due'), descending: false }],
										columns: ['Code', 'Type', 'Next due', 'Holder', 'Arrears'].map(mooring),
										empty: 'Nothing is due there within four weeks.',
										lines: [
											{ id: 'harbours-6', kind: 'mark', word: 'past due', tone: 'past', where: "'Next due' < TODAY()" }
										]
									}
								]
							}
						]
					}
				]
			},
			{
				id: 'inspections',
				title: 'Inspections',
				icon: 'checklist',
				lines: [
					{ id: 'inspections-1', kind: 'heading', text: 'Inspections, latest first' },
					{
						id: 'inspections-2',
						kind: 'list',
						table: inspections,
						where: '',
						sort: [{ column: inspection('Date'), descending: true }],
						columns: ['Title', 'Mooring', 'Date', 'Verdict', 'Diver', 'Photo'].map(inspection),
						opens: 'inspection',
						finds: [inspection('Title')],
						filters: ['Verdict', 'Diver'].map(inspection)
					}
				]
			},
			{
				id: 'inspection',
				title: 'Inspection sheet',
				lines: [
					{
						id: 'inspection-1',
						kind: 'record',
						table: inspections,
						columns: ['Mooring', 'Date', 'Diver', 'Verdict', 'Chain read', 'Findings', 'Remark', 'Photo', 'Signed'].map(
							inspection
						)
					},
					{
						...{ id: 'inspection-2', kind: 'button', label: 'Send me this as PDF' },
						does: { kind: 'run', routine: 'paper' }
					}
				]
			},
			{
				id: 'inspect',
				title: 'Inspect',
				icon: 'pencil',
				lines: [
					{ id: 'inspect-1', kind: 'heading', text: 'New inspection' },
					{
						id: 'inspect-2',
						kind: 'form',
						table: inspections,
						columns: [],
						thanks: 'Inspection saved. The harbour master sees it now.',
						lines: [
							{ id: 'inspect-3', kind: 'entry', column: inspection('Mooring'), sample: 'Type its code' },
							{
								...{ id: 'inspect-4', kind: 'entry', column: inspection('Date'), starts: 'TODAY()' },
								...{
									unless: 'Date <= TODAY()',
									says: 'An inspection cannot lie ahead. Choose today, or the day it was.'
								}
							},
							{ id: 'inspect-5', kind: 'entry', column: inspection('Verdict') },
							{
								...{ id: 'inspect-6', kind: 'entry', column: inspection('Chain read') },
								...{ help: 'The thinnest link, measured across the wear.', sample: '24.5' },
								...{
									unless: "'Chain read' > 0 and 'Chain read' < 100",
									says: 'Chain measures between 0 and 100 mm. Read the gauge again.'
								}
							},
							{
								id: 'inspect-7',
								kind: 'entry',
								column: inspection('Findings'),
								when: 'Verdict = "Watch" or Verdict = "Replace"'
							},
							{
								...{ id: 'inspect-8', kind: 'entry', column: inspection('Remark') },
								...{ must: 'Verdict = "Replace"', help: 'What the harbour master must know to order the right part.' }
							},
							{ id: 'inspect-9', kind: 'entry', column: inspection('Photo'), must: 'Verdict = "Replace"' },
							{ id: 'inspect-10', kind: 'entry', column: inspection('Signed') }
						]
					}
				]
			}
		],
		routines: mooringRoutines(tables),
		signoffs: []
	}
}

export interface SpendTables {
	readonly requests: number
	readonly request: Columns
	readonly items: number
	readonly item: Columns
}

export function spending({ requests, request, items, item }: SpendTables): AppInput {
	const shown = ['Harbour', 'Amount', 'Size', 'Cost code', 'Needed by', 'Why'].map(request)
	return {
		format: APP_FORMAT,
		name: 'Spending',
		about: 'Spend requests and their sign-off',
		colour: 'plum',
		screens: [
			{
				id: 'requests',
				title: 'Requests',
				icon: 'receipt',
				lines: [
					{ id: 'requests-1', kind: 'heading', text: 'Spend requests' },
					{
						id: 'requests-2',
						kind: 'list',
						table: requests,
						where: '',
						sort: [{ column: request('Amount'), descending: true }],
						columns: ['What for', 'Harbour', 'Amount', 'Size'].map(request),
						opens: 'request'
					},
					{ id: 'requests-3', kind: 'button', label: 'Ask for money', does: { kind: 'open', screen: 'ask' } }
				]
			},
			{
				id: 'request',
				title: 'Request',
				lines: [{ id: 'request-1', kind: 'record', table: requests, columns: shown }]
			},
			{
				id: 'ask',
				title: 'Ask',
				icon: 'add',
				lines: [
					{ id: 'ask-1', kind: 'heading', text: 'Ask for money' },
					{
						id: 'ask-2',
						kind: 'form',
						table: requests,
						columns: [],
						thanks: 'Sent. It waits on finance now; you will be told.',
						lines: [
							{ id: 'ask-3', kind: 'entry', column: request('What for'), sample: 'Riser chain for the outer row' },
							{
								id: 'ask-4',
								kind: 'entry',
								column: request('Harbour'),
								starts: 'me.Harbour',
								from: 'Name = me.Harbour.Name'
							},
							{
								...{ id: 'ask-5', kind: 'items', table: items, of: item('Request') },
								columns: ['Item', 'Quantity', 'Each'].map(item),
								lines: [{ id: 'ask-6', kind: 'shown', value: 'Quantity * Each', label: 'Total' }]
							},
							{ id: 'ask-7', kind: 'entry', column: request('Amount'), help: 'All of it, with delivery.' },
							{ id: 'ask-8', kind: 'entry', column: request('Cost code'), remembers: 'what was sent last' },
							{
								...{ id: 'ask-9', kind: 'entry', column: request('Needed by') },
								...{
									unless: "'Needed by' >= TODAY()",
									says: 'That day has gone. Choose one that finance can still meet.'
								}
							},
							{
								...{ id: 'ask-10', kind: 'entry', column: request('Why'), must: 'Amount > 5000' },
								help: 'Above £5,000 finance wants the reason in a sentence.'
							}
						]
					}
				]
			}
		],
		routines: [],
		signoffs: [
			{
				id: 'finance',
				name: 'Spend request',
				table: requests,
				where: '',
				decider: 'Harbour.Controller',
				columns: shown,
				children: [{ table: items, column: item('Request'), columns: ['Item', 'Quantity', 'Each', 'Total'].map(item) }]
			}
		]
	}
}
