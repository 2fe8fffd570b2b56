/** How the state of a request is marked. */
export function toneOf(state: string): 'good' | 'bad' | 'look' | '' {
	if (state === 'approved') return 'good'
	if (state === 'declined') return 'bad'
	return state === 'waiting' ? 'look' : ''
}
