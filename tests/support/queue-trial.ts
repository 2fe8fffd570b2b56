/**
 * A program that asks for money and is killed at a named step, or that works off what an earlier one left behind:
 *
 *     node build/threads/queue-trial.js FOLDER STEP
 */
import { resolve } from 'node:path'
import { openHost } from '$lib/server/host/host.ts'

/** What is due later than this waits for somebody, not for the program. */
const SOON_MS = 3_600_000

const [folder = '', step = ''] = process.argv.slice(2)

const die = (): void => {
	process.kill(process.pid, 'SIGKILL')
}

const host = await openHost({
	folder,
	scripts: resolve('build/threads'),
	origin: 'http://127.0.0.1:1',
	// Other routines of the demo send too; those of a clock run on the first start.
	at: (reached, subject) => {
		if (reached === step && (step === 'ran' || subject.includes('A trial winch'))) die()
	}
})

if (step !== 'work off' && step !== 'ran') {
	const tables = await host.read('bench', { actor: { person: await personOf('Saskia Holm') }, now: host.now() })
	const table = tables.tables.find((each) => each.name === 'Spend requests')
	const column = (name: string): number => table?.columns.find((each) => each.name === name)?.id ?? 0
	const cells = [
		{ column: column('What for'), value: 'A trial winch' },
		{ column: column('Harbour'), value: { match: 'Ness Hythe' } },
		{ column: column('Amount'), value: 600 }
	]
	const actor = { person: await personOf('Imke Dahl') }
	const saved = host.write('sendForm', {
		app: 2,
		draft: false,
		screen: 'ask',
		line: 'ask-2',
		cells,
		items: {},
		actor,
		now: host.now()
	})
	if (step === 'asked') die()
	await saved
	if (step === 'saved') die()
}

await untilIdle()
await host.close()
process.exit(0)

async function personOf(name: string): Promise<number> {
	return (await host.read('people', undefined)).find((each) => each.name === name)?.person ?? 0
}

/** Until nothing is left to do; a step that never comes must not hang the test. */
async function untilIdle(): Promise<void> {
	const until = Date.now() + 20_000
	while (Date.now() < until) {
		const { nextAt } = await host.read('queue', undefined)
		if (nextAt === null || nextAt - host.now() > SOON_MS) return
		await new Promise((done) => setTimeout(done, 50))
	}
	console.error('The queue did not run dry')
	process.exit(3)
}
