/** Other programs, as stewards and builders know them: never by their secrets. */
export interface OtherProgram {
	readonly id: number
	readonly name: string
	/** Where it is called; blank where it only asks. */
	readonly address: string
	/** What it calls itself when it signs. */
	readonly keyId: string
	/** Epoch ms. */
	readonly madeAt: number
}
