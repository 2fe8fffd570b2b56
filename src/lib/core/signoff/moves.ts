/** The moves of a sign-off of one stage, as a table; the page, the door and the tests ask the same one. */

export type CaseState = 'waiting' | 'approved' | 'declined' | 'withdrawn'
export type Move = 'approve' | 'decline' | 'withdraw'

const MOVES: Readonly<Record<CaseState, Partial<Record<Move, CaseState>>>> = {
	waiting: { approve: 'approved', decline: 'declined', withdraw: 'withdrawn' },
	approved: {},
	declined: {},
	withdrawn: {}
}

/** The state after a move, or undefined where it is not on offer. */
export function step(state: CaseState, move: Move): CaseState | undefined {
	return MOVES[state][move]
}

/** The moves that somebody may make: whoever it waits on decides, whoever asked may take it back. */
export function movesFor(state: CaseState, who: { readonly decides: boolean; readonly asked: boolean }): Move[] {
	const all = Object.keys(MOVES[state]) as Move[]
	return all.filter((move) => (move === 'withdraw' ? who.asked : who.decides && !who.asked))
}
