/** What a press on a part of a chart does: it sets what other lines go by, or opens the rows behind it. */
import { goto } from '$app/navigation'
import { addressNow } from '../address-now.ts'
import { withChosen, withTyped } from '../screen-address.ts'

export interface Holding {
	/** The name that it sets; blank where it sets none. */
	readonly holds: string
	/** What is set. */
	readonly chosen: string
	/** Whether it is typed words, which stand where no log keeps them. */
	readonly isWords?: boolean
}

/** Sets a key on the screen, or takes it back. */
export function setHeld({ holds, chosen, isWords = false }: Holding, key: string): void {
	const to = isWords ? withTyped : withChosen
	void goto(to(addressNow(), holds, key === chosen ? '' : key), { keepFocus: true, noScroll: true })
}
