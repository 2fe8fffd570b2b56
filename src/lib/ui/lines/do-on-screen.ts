import type { AnswerTo, AskedOf } from '$lib/core/requests/pair.ts'
import type { ScreenPath } from '$lib/core/requests/screens.ts'
import type { ScreenRequests } from '$lib/core/requests/screen-doings.ts'
import { send, type Sent } from '../send.ts'
import { tellBench } from '../lookout/tell-bench.ts'

/** Does something on a screen. In the Lookout its other frames read their copy again. */
export async function doOnScreen<const A extends AskedOf<ScreenRequests>>(
	path: ScreenPath,
	asked: A
): Promise<Sent<AnswerTo<ScreenRequests, A>>> {
	const answer = await send('POST', `${path}/do`, asked)
	if (answer.ok) tellBench({ tinShedTried: true })
	return answer
}
