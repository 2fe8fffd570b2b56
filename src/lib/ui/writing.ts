/** How this workspace writes dates and figures. A process serves one workspace, so what is rendered on the server keeps it here too. */
import { BRITISH, type Conventions } from '$lib/core/model/writing.ts'

let here: Conventions = BRITISH

export function writingHere(): Conventions {
	return here
}

/** Said by the outermost layout, before anything is drawn. */
export function writeAs(conventions: Conventions): void {
	here = conventions
}
