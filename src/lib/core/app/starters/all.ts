/** The starters there are, in the words of a harbour: what each is for is what it is found by. */
import type { Starter } from './starter.ts'

const stock: Starter = {
	...{ id: 'stock', name: 'Stores', colour: 'bottle' },
	about: 'What lies on the shelves, how much of it, and what has to be bought',
	words: 'stock inventory shelf parts supplies minimum order warehouse',
	tables: [
		{
			name: 'Stores',
			columns: [
				{ name: 'Item', type: 'text', required: true },
				{ name: 'Lies in', type: 'choice', choices: ['Shed', 'Workboat', 'Office'] },
				{ name: 'In stock', type: 'whole number', required: true, otherwise: '0' },
				{ name: 'Least', type: 'whole number', otherwise: '0' },
				{ name: 'Price', type: 'money', unit: '£' },
				{ name: 'Worth', type: 'computed', formula: "'In stock' * Price" },
				{ name: 'short', type: 'computed', formula: "'In stock' < Least", condition: true }
			]
		}
	],
	inLists: (place, newId) => ({
		Stores: [
			{ id: newId(), kind: 'mark', word: 'short', tone: 'past', where: 'short' },
			{
				...{ id: newId(), kind: 'tally', table: place('Stores'), column: place('Stores', 'In stock') },
				less: 'takes it away too'
			}
		]
	}),
	screens: (place, newId) => [
		{
			...{ id: newId(), title: 'To buy', icon: 'receipt' },
			lines: [
				{ id: newId(), kind: 'heading', text: 'What has run short' },
				{
					...{ id: newId(), kind: 'list', table: place('Stores'), where: 'short', opens: null, as: 'a table' },
					columns: ['Item', 'Lies in', 'In stock', 'Least'].map((name) => place('Stores', name)),
					...{ sort: [], empty: 'Nothing has run short.' }
				}
			]
		}
	]
}

const requests: Starter = {
	...{ id: 'requests', name: 'Spending', colour: 'plum' },
	about: 'What somebody would like to buy, and who says yes or no to it',
	words: 'requests approval sign-off purchase expenses money ask finance decide',
	tables: [
		{
			name: 'Requests',
			columns: [
				{ name: 'What for', type: 'text', required: true },
				{ name: 'Cost', type: 'money', unit: '£', required: true },
				{ name: 'Asked by', type: 'reference', to: 'People', reverseName: 'requests', otherwise: 'me' },
				{ name: 'Asked of', type: 'reference', to: 'People', reverseName: 'requests to decide', required: true },
				{ name: 'Needed by', type: 'date' },
				{ name: 'Why', type: 'long text' }
			]
		},
		{
			name: 'Request items',
			columns: [
				{ name: 'Item', type: 'text', required: true },
				{ name: 'Request', type: 'reference', to: 'Requests', reverseName: 'items', required: true },
				{ name: 'Price', type: 'money', unit: '£' }
			]
		}
	],
	signoffs: (place, newId) => [
		{
			...{ id: newId(), name: 'Request', table: place('Requests'), where: '', decider: 'Asked of' },
			columns: ['What for', 'Cost', 'Asked by', 'Needed by', 'Why'].map((name) => place('Requests', name)),
			children: [
				{
					...{ table: place('Request items'), column: place('Request items', 'Request') },
					columns: ['Item', 'Price'].map((name) => place('Request items', name))
				}
			]
		}
	]
}

const inspections: Starter = {
	...{ id: 'inspections', name: 'Inspections', colour: 'sea' },
	about: 'Things that are looked at again and again, what was found, and when the next look is due',
	words: 'inspections checks maintenance equipment safety due survey photo divers moorings',
	tables: [
		{
			name: 'Things',
			columns: [
				{ name: 'Name', type: 'text', required: true },
				{ name: 'Kind', type: 'choice', choices: ['Mooring', 'Ladder', 'Life-saving gear', 'Other'] },
				{ name: 'Place', type: 'place' },
				{ name: 'Every', type: 'whole number', unit: 'months', otherwise: '12' },
				{ name: 'Last look', type: 'computed', formula: 'MAX(inspections.Date)' },
				{ name: 'Next due', type: 'computed', formula: 'EDATE(Last look; Every)' }
			]
		},
		{
			name: 'Inspections',
			columns: [
				{ name: 'Title', type: 'text', otherwise: 'Thing.Name & " on " & Date' },
				{ name: 'Thing', type: 'reference', to: 'Things', reverseName: 'inspections', required: true },
				{ name: 'Date', type: 'date', required: true },
				{ name: 'Verdict', type: 'choice', choices: ['Sound', 'Watch', 'Replace'], required: true },
				{ name: 'By', type: 'reference', to: 'People', reverseName: 'inspections', otherwise: 'me' },
				{ name: 'Remark', type: 'long text' },
				{ name: 'Photo', type: 'photo' }
			]
		}
	]
}

const visits: Starter = {
	...{ id: 'visits', name: 'Front desk', colour: 'oxide' },
	about: 'Who calls at the counter, what for, and how it was for them',
	words: 'visits visitors counter kiosk reception guests check in survey questions',
	tables: [
		{
			name: 'Callers',
			columns: [
				{ name: 'Name', type: 'text', required: true },
				{ name: 'Called', type: 'date', required: true, otherwise: 'TODAY()' },
				{ name: 'What for', type: 'choice', choices: ['Berth', 'Payment', 'Delivery', 'Something else'] },
				{ name: 'To see', type: 'reference', to: 'People', reverseName: 'callers', required: true }
			]
		},
		{
			name: 'Answers',
			columns: [
				{ name: 'Visit', type: 'choice', choices: ['Very good', 'Good', 'All right', 'Poor'], required: true },
				{ name: 'Reason', type: 'choice', choices: ['Waiting', 'Opening hours', 'Price', 'Something else'] },
				{ name: 'In words', type: 'text' },
				{ name: 'Said', type: 'date', otherwise: 'TODAY()' }
			]
		}
	],
	screens: (place, newId) => [
		{
			...{ id: newId(), title: 'How was it?', icon: 'star' },
			lines: [
				{
					...{ id: newId(), kind: 'steps', table: place('Answers'), thanks: 'Thank you.' },
					lines: [
						{
							...{ id: newId(), kind: 'ask', column: place('Answers', 'Visit'), question: 'How was your visit?' },
							lines: [
								{ id: newId(), kind: 'answer', value: 'Very good', tone: 'sound' },
								{ id: newId(), kind: 'answer', value: 'Good', tone: 'sound' },
								{ id: newId(), kind: 'answer', value: 'All right', tone: 'look' },
								{ id: newId(), kind: 'answer', value: 'Poor', tone: 'past' }
							]
						},
						{
							...{ id: newId(), kind: 'ask', column: place('Answers', 'Reason'), question: 'What could be better?' },
							when: 'Visit = "All right" or Visit = "Poor"'
						},
						{
							...{ id: newId(), kind: 'ask', column: place('Answers', 'In words'), skips: 'which may be skipped' },
							question: 'Anything else?'
						}
					]
				}
			]
		}
	]
}

const directory: Starter = {
	...{ id: 'directory', name: 'Who is who', colour: 'slate' },
	about: 'People and firms, what they are to us, and how they are reached',
	words: 'directory contacts people phone address book suppliers tenants holders',
	tables: [
		{
			name: 'Contacts',
			columns: [
				{ name: 'Name', type: 'text', required: true },
				{ name: 'What they are', type: 'choice', choices: ['Berth holder', 'Supplier', 'Authority', 'Neighbour'] },
				{ name: 'Phone', type: 'phone' },
				{ name: 'Email', type: 'email' },
				{ name: 'Looked after by', type: 'reference', to: 'People', reverseName: 'contacts' },
				{ name: 'Note', type: 'long text' }
			]
		}
	]
}

const jobs: Starter = {
	...{ id: 'jobs', name: 'Jobs', colour: 'rope' },
	about: 'What has to be done out there, where, by whom and when',
	words: 'jobs work orders field tasks calls map calendar crew repair',
	tables: [
		{
			name: 'Jobs',
			columns: [
				{ name: 'What', type: 'text', required: true },
				{
					name: 'State',
					type: 'choice',
					choices: ['Raised', 'Planned', 'Under way', 'Done'],
					required: true,
					otherwise: '"Raised"'
				},
				{ name: 'Day', type: 'date' },
				{ name: 'Until', type: 'date' },
				{ name: 'Given to', type: 'reference', to: 'People', reverseName: 'jobs' },
				{ name: 'Place', type: 'place' },
				{ name: 'Note', type: 'long text' },
				{ name: 'Photo', type: 'photo' }
			]
		}
	],
	screens: (place, newId) => [
		{
			...{ id: newId(), title: 'Mine', icon: 'spanner' },
			lines: [
				{ id: newId(), kind: 'heading', text: 'What is given to me' },
				{
					...{
						id: newId(),
						kind: 'list',
						table: place('Jobs'),
						where: 'Given to = me and State <> "Done"',
						opens: null
					},
					columns: ['What', 'Day', 'State', 'Place'].map((name) => place('Jobs', name)),
					...{ sort: [{ column: place('Jobs', 'Day'), descending: false }], empty: 'Nothing is given to you.' }
				}
			]
		}
	]
}

export const STARTERS: readonly Starter[] = [stock, requests, inspections, visits, directory, jobs]
