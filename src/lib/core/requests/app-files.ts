/** Pictures and films that builders give their apps. */
import type { AppDocument } from '../app/document.ts'
import type { AppBase } from './screens.ts'
import type { AppFile } from '../document/parts.ts'

export interface TakenAppFile {
	readonly file: AppFile
	/** The paint that goes with a picture; null for a film. */
	readonly colour: AppDocument['colour'] | null
}

/** Where its bytes are read: as an app shows it, or on the Bench, where it is no app's yet. */
export function appFileAddress(sha: string, base?: AppBase): string {
	const of = base === undefined ? '' : base.startsWith('/as/') ? `?as=${base.slice(4)}` : `?app=${base.slice(5)}`
	return `/pictures/${sha}${of}`
}
