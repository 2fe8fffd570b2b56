/** By what way something was done. */
export type Through =
	| 'Access'
	| 'account'
	| 'Bench'
	| 'board'
	| 'button on a row'
	| 'calendar'
	| 'demo'
	| 'door'
	| 'export'
	| 'form'
	| 'grid'
	| 'list'
	| 'map'
	| 'People'
	| 'rating'
	| 'record sheet'
	| 'Release'
	| 'Routines'
	| 'tally'
	| 'Signing in'
	| 'Sources'
	| 'Tables'
	| 'Ways in'
	| 'Workspace'
	| `answer to ${string}`
	| `file ${string}`
	| `routine ${string}`
	| `taking back ${number}`
	| `undo of file ${string}`
	| SignInThrough
	| { readonly signoff: string }

/** By what the first step of signing in was taken. */
export type FirstStep = 'sign-in' | { readonly provider: string }

/** By what way somebody came in. */
export type SignInThrough =
	| 'demo chooser'
	| 'door'
	| 'first start'
	| 'sign-in'
	| 'sign-in with code'
	| 'sign-out'
	| 'visit'
	/** A link that was sent. */
	| 'invitation'
	| 'password'
	| 'first steward'
	| { readonly provider: string; readonly withCode?: boolean }

/** As it is stored and sealed, and read in the Logbook; what was stored once is never spelt otherwise. */
export function throughText(through: Through): string {
	if (typeof through === 'string') return through
	if ('signoff' in through) return through.signoff
	return through.withCode ? `${through.provider} with code` : through.provider
}

/** The same way in, with the code that was owed. */
export function withCode(through: FirstStep): SignInThrough {
	return through === 'sign-in' ? 'sign-in with code' : { ...through, withCode: true }
}
