import type { FunctionEntry } from '../types.ts'

export const TEXT_FUNCTIONS: readonly FunctionEntry[] = [
	{
		name: 'EXACT',
		parameters: [
			{ name: 'one', type: 'text' },
			{ name: 'other', type: 'text' }
		],
		result: 'yesno',
		doc: 'Whether two texts are the same, capital letters and all. "=" does not regard capitals.',
		examples: [['EXACT("Ness"; "NESS")', 'no']],
		canFail: false,
		evaluate: (one, other) => one === other
	}
]
