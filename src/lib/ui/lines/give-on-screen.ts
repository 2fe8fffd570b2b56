import { goto } from '$app/navigation'
import { page } from '$app/state'
import type { ScreenPath } from '$lib/core/requests/screens.ts'
import { send } from '../send.ts'
import { addressNow } from './address-now.ts'
import { heldIn, opensWith, withGiven } from './screen-address.ts'

interface Giving {
	/** The line of the button. */
	readonly line: string
	/** On which it was pressed, where it stands among rows. */
	readonly row?: string
	/** The screen that it opens; this one, where it opens none. */
	readonly to?: string | undefined
	/** What stands in the address of that screen besides. */
	readonly more?: Readonly<Record<string, string>> | undefined
}

/** Goes where a button leads, with what it gives there. What went wrong, in words; undefined where nothing did. */
export async function giveOnScreen(path: ScreenPath, { line, row, to, more }: Giving): Promise<string | undefined> {
	const held = heldIn(page.url)
	const answer = await send('POST', `${path}/lines`, {
		kind: 'give',
		line,
		held,
		...(row === undefined ? {} : { row })
	})
	if (!answer.ok) return answer.refusal.message
	if (to === undefined) await goto(withGiven(addressNow(), answer.value), { keepFocus: true, noScroll: true })
	else await goto(opensWith(to, answer.value, more))
	return undefined
}
