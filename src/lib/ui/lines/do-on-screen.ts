import { send, type Sent } from '../send.ts'
import { tellBench } from '../lookout/tell-bench.ts'

/** Does something on a screen. In the Lookout its other frames read their copy again. */
export async function doOnScreen<T>(path: string, asked: { kind: string } & Record<string, unknown>): Promise<Sent<T>> {
	const answer = await send<T>(`${path}/do`, asked)
	if (answer.ok) tellBench({ tinShedTried: true })
	return answer
}
