import type { PersonState } from '$lib/core/requests/people.ts'

/** The tone of each state's stamp; the word itself says what it is. */
export const STATE_TONES: Readonly<Record<PersonState, string>> = {
	active: 'good',
	invited: 'info',
	'not invited': '',
	suspended: 'bad'
}
