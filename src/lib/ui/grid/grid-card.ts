/** What lies over a grid. */
export type GridCard =
	| { readonly kind: 'column'; readonly column: number }
	/** What stands in a column. */
	| { readonly kind: 'values'; readonly column: number }
	| { readonly kind: 'new column' }
	| { readonly kind: 'table' }
