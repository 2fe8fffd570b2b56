/** Tables with every kind of column that formulas meet. */
export const BASES = 2
export const ITEMS = 3
export const KIDS = 4
/** The person who owns them. */
const OWNER = 1
export const CHOICES = ['Swinging', 'Trot', 'Pontoon']

export const FORMULA_TABLES = [
	{
		id: BASES,
		name: 'bases',
		keepers: [OWNER],
		label: 10,
		columns: [
			{ id: 10, name: 'name', type: 'text' as const },
			{ id: 11, name: 'size', type: 'decimal' as const },
			{ id: 12, name: 'fee', type: 'money' as const },
			{ id: 13, name: 'since', type: 'date' as const },
			{ id: 14, name: 'open', type: 'yes/no' as const }
		]
	},
	{
		id: ITEMS,
		name: 'items',
		keepers: [OWNER],
		label: 20,
		columns: [
			{ id: 20, name: 't', type: 'text' as const },
			{ id: 21, name: 'u', type: 'long text' as const },
			{ id: 22, name: 'a', type: 'decimal' as const },
			{ id: 23, name: 'w', type: 'whole number' as const },
			{ id: 24, name: 'm', type: 'money' as const },
			{ id: 25, name: 'p', type: 'decimal' as const, places: 3 },
			{ id: 26, name: 'c', type: 'choice' as const, choices: CHOICES },
			{ id: 27, name: 'd', type: 'date' as const },
			{ id: 28, name: 'y', type: 'yes/no' as const },
			{ id: 29, name: 'base', type: 'reference' as const, to: BASES },
			{ id: 35, name: 'len', type: 'duration' as const },
			{ id: 36, name: 'at', type: 'date and time' as const },
			{ id: 30, name: 'other', type: 'reference' as const, to: BASES, reverseName: 'others' },
			{ id: 31, name: 'ratio', type: 'computed' as const, formula: 'm / w' },
			{ id: 32, name: 'due', type: 'computed' as const, formula: 'EDATE(d; w)' },
			{ id: 33, name: 'label two', type: 'computed' as const, formula: 't & " " & c' },
			{ id: 34, name: 'kid total', type: 'computed' as const, formula: 'SUM(kids.cost) / COUNT(kids)' }
		]
	},
	{
		id: KIDS,
		name: 'kids',
		keepers: [OWNER],
		label: 41,
		columns: [
			{ id: 40, name: 'of', type: 'reference' as const, to: ITEMS },
			{ id: 41, name: 'kt', type: 'text' as const },
			{ id: 42, name: 'k', type: 'decimal' as const },
			{ id: 43, name: 'cost', type: 'money' as const },
			{ id: 44, name: 'kd', type: 'date' as const },
			{ id: 45, name: 'ky', type: 'yes/no' as const },
			{ id: 46, name: 'share', type: 'computed' as const, formula: 'cost / k' }
		]
	}
]
