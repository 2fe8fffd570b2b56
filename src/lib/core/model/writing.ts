/** How people write dates and figures, where a text comes from and where values are shown. */

/** What reading asks for. */
export interface Writing {
	readonly dates: 'day first' | 'month first' | 'year first'
	readonly decimal: '.' | ','
}

/** What showing asks for besides. */
export interface Conventions extends Writing {
	/** Between thousands: `,`, `.`, an apostrophe or a space that does not break. */
	readonly apart: string
	/** Between the parts of a date in figures. */
	readonly between: string
	readonly clock: 24 | 12
	/** Where the sign of money stands. */
	readonly sign: 'before' | 'after'
}

export const TYPED: Writing = { dates: 'day first', decimal: '.' }

/** Where a workspace says nothing else. */
export const BRITISH: Conventions = { ...TYPED, apart: ',', between: '/', clock: 24, sign: 'before' }
