/** Routines and other programs: what is asked for here and begun once, what is sent and taken, and what becomes of a no. */
import { beforeEach, describe, expect, test } from 'vitest'
import { checkDraft } from '$lib/server/apps/check-draft.ts'
import { addAppFrom } from '$lib/server/apps/apps.ts'
import { seal } from '$lib/server/base/seal.ts'
import type { Outside, OutsideAnswer, OutsideCall } from '$lib/server/outside/outside.ts'
import { addProgram, listPrograms, programByKey, removeProgram, renewProgram } from '$lib/server/outside/programs.ts'
import { sendCall } from '$lib/server/host/send-call.ts'
import { verifyRequest } from '$lib/server/outside/sign.ts'
import { holdOutgoing } from '$lib/server/queue/outgoing.ts'
import { readRun } from '$lib/server/routines/read-runs.ts'
import { claimCall, finishCall, nextCallAt } from '$lib/server/routines/call-program.ts'
import { takeRequest, type Request } from '$lib/server/routines/take-request.ts'
import { cancelRun, tryRunAgain } from '$lib/server/routines/tend-runs.ts'
import { STEWARD } from '$lib/server/rights/system-roles.ts'
import type { Store } from '$lib/server/store/store.ts'
import { openApi } from '$lib/core/signing/request-values.ts'
import { sealId } from '$lib/server/store/sealed-ids.ts'
import { KEEPER } from '../support/scratch-store.ts'
import {
	by,
	COST,
	DAY,
	documentOfRoutines,
	IMKE,
	itemOf,
	ITEMS,
	NOW,
	openStock,
	release,
	routine,
	runsOf,
	setStock,
	STORES,
	workOff
} from '../support/quay-stock.ts'

const WORKSPACE_KEY = 'ab'.repeat(32)
const SECRET = Buffer.alloc(32, 7).toString('base64')

let store: Store
let chandlery: { readonly id: number; readonly name: string }
beforeEach(() => {
	store = openStock()
	store.db.exec(`INSERT OR IGNORE INTO role_held (person, role) VALUES (${KEEPER}, ${STEWARD})`)
	const sealedSecret = seal(WORKSPACE_KEY, 'program', SECRET)
	const address = 'https://orders.varrow.example/in/'
	chandlery = store.db.transaction(() => addProgram(store, { name: 'Chandlery', address, sealedSecret, ...by }))()
})

const take = (holds: string, what: string) => ({ id: `t ${holds}`, kind: 'take', what, holds }) as never
const give = (value: string, as: string) => ({ id: `g ${as}`, kind: 'give', value, as }) as never
const setFound = { id: 'e', kind: 'each', table: ITEMS, where: 'item = here.code', lines: [{ id: 's', kind: 'set', column: 21, formula: 'stock + here.count' }] } as never // prettier-ignore

describe('a request of another program', () => {
	let app: number
	const delivered = { id: 'in', name: 'Delivered', start: { kind: 'request', from: 'chandlery' } as const, acts: STORES, steps: [take('code', 'a text'), take('count', 'a number'), setFound] } // prettier-ignore
	beforeEach(() => {
		app = release(store, [routine(delivered)])
	})
	const ask = (parts: Partial<Request> = {}) =>
		store.db.transaction(() =>
			takeRequest(store, {
				...{ app, routine: 'in', program: chandlery, idempotencyKey: 'k1', now: NOW },
				...{ body: '{"code":"Shackle","count":12}', ...parts }
			})
		)()

	test('begins the routine with what it sent, as its role', () => {
		ask()
		workOff(store)
		expect(itemOf(store, 1)['stock']).toBe(52)
		const through = store.prepare<string>(`SELECT through FROM history ORDER BY seq DESC LIMIT 1`).pluck().get()
		expect(through).toBe('routine Delivered as Stores keepers')
	})

	test('that comes again begins nothing more, and hears the same', () => {
		const first = ask()
		workOff(store)
		expect(ask()).toBe(first)
		workOff(store)
		expect(itemOf(store, 1)['stock']).toBe(52)
		expect(runsOf(store)).toHaveLength(1)
	})

	test.each([
		['the same key for something else', { body: '{"code":"Shackle","count":13}' }, 'was used for something else', true],
		['no key', { idempotencyKey: '' }, 'Idempotency-Key is a name'],
		['a value that is not taken', { body: '{"code":"Shackle","count":1,"who":"x"}' }, 'who'],
		['a value that is missing', { body: '{"code":"Shackle"}' }, 'count: '],
		['a value of another kind', { body: '{"code":"Shackle","count":"12"}' }, 'count: '],
		['no JSON', { body: 'code=Shackle' }, 'The body is no JSON.'],
		['another program', { program: { id: 99, name: 'Somebody' } }, 'Nothing is asked for at this address'],
		['another routine', { routine: 'out' }, 'Nothing is asked for at this address'],
		['another app', { app: 77 }, 'Nothing is asked for at this address']
	] as [string, Partial<Request>, string, boolean?][])(
		'%s is refused, and begins nothing',
		(_what, parts, says, isAgain = false) => {
			if (isAgain) ask()
			expect(() => ask(parts)).toThrow(says)
			expect(runsOf(store)).toHaveLength(isAgain ? 1 : 0)
		}
	)

	test('is described for who writes the other program', () => {
		const described = openApi({ name: 'Delivered', address: 'https://trust.varrow.example/request/1/in', takes: { code: { type: 'text' }, on: { type: 'date' } } }) // prettier-ignore
		expect(described).toMatchObject({
			openapi: '3.1.0',
			paths: {
				'/request/1/in': {
					post: {
						requestBody: {
							content: {
								'application/json': {
									schema: {
										required: ['code', 'on'],
										additionalProperties: false,
										properties: { on: { anyOf: [{ type: 'string', format: 'date' }, { type: 'null' }] } }
									}
								}
							}
						}
					}
				}
			}
		})
	})
})

const order = { id: 'c', kind: 'call', program: 'Chandlery', path: '/orders', lines: [give('item', 'Item'), give('least - stock', 'Missing')] } as never // prettier-ignore
const note = { id: 'n', kind: 'set', column: 23, formula: '"ordered"' } as never

/** Sends what is due as the program does, to one that answers so. */
async function send(answer: OutsideAnswer, now = NOW): Promise<OutsideCall[]> {
	const calls: OutsideCall[] = []
	const outside: Outside = {
		post: async (call) => {
			calls.push(call)
			return answer
		}
	}
	const writes = { claimCall, finishCall } as Record<string, (store: Store, args: never) => unknown>
	const write = async (name: string, args: never) => store.db.transaction(() => writes[name]?.(store, args))()
	const host = { write, now: () => now } as never
	while (await sendCall({ host, outside, key: WORKSPACE_KEY }));
	return calls
}

describe('a call of another program', () => {
	let app: number
	beforeEach(() => {
		app = release(store, [routine({ acts: STORES, steps: [order, note] })])
		setStock(store, 4)
		workOff(store)
	})
	const only = () => runsOf(store)[0]

	test('brings its values as whoever acts reads them, signed; the routine goes on once it is taken', async () => {
		expect(itemOf(store, 1)['note']).toBe(null)
		const [call, ...more] = await send({ status: 202 })
		expect(more).toEqual([])
		expect(call?.url).toBe('https://orders.varrow.example/in/orders')
		expect(JSON.parse(String(call?.body))).toEqual({ Item: 'Shackle', Missing: 21 })
		const key = { id: listPrograms(store, by)[0]?.keyId ?? '', secret: SECRET }
		const request = { method: 'POST', url: call?.url ?? '', headers: call?.headers ?? {}, body: Buffer.from(String(call?.body)) } // prettier-ignore
		expect(verifyRequest(request, (id) => (id === key.id ? key : undefined), NOW)).toEqual({ by: key })
		workOff(store)
		expect(itemOf(store, 1)['note']).toBe('ordered')
		expect(only()).toMatchObject({ state: 'done' })
		expect(await send({ status: 202 })).toEqual([])
	})

	test('that finds nobody is tried again under the same key, later each time, for a day', async () => {
		const [first] = await send({ why: 'away', isForGood: false })
		expect(nextCallAt(store)).toBe(NOW + 1000)
		expect(await send({ status: 503 })).toEqual([])
		const [second] = await send({ status: 503 }, NOW + 1000)
		expect(second?.headers['idempotency-key']).toBe(first?.headers['idempotency-key'])
		expect(nextCallAt(store)).toBe(NOW + 3000)
		for (let now = NOW + 3000, left = 60; left > 0 && nextCallAt(store) !== null; left--) {
			await send({ status: 503 }, now)
			now = nextCallAt(store) ?? now
		}
		expect(only()).toMatchObject({ state: 'given up', error: 'Chandlery answered with 503, which is a fault of its own.' }) // prettier-ignore
		expect(itemOf(store, 1)['note']).toBe(null)
	})

	test.each([
		['a no', { status: 422 }, 'Chandlery answered with 422.'],
		[
			'a redirect',
			{ status: 302 },
			'Chandlery answered with another address (302), which is not followed. Write that one.'
		],
		['a private network', { why: 'db.varrow.example leads into a private network.', isForGood: true }, 'db.varrow.example leads into a private network.'] // prettier-ignore
	])('%s gives the run up at once, and it can be tried again from there', async (_what, answer, error) => {
		await send(answer)
		expect(only()).toMatchObject({ state: 'given up', error })
		const [run] = store.prepare<number>('SELECT id FROM run').pluck().all()
		const sealed = store.db.transaction(() => sealedRun(run ?? 0))()
		store.db.transaction(() => tryRunAgain(store, { app, run: sealed, ...by }))()
		workOff(store)
		expect(await send({ status: 200 })).toHaveLength(1)
		workOff(store)
		expect(itemOf(store, 1)['note']).toBe('ordered')
	})

	test('of a run that is cancelled does not leave, nor while what leaves is held back', async () => {
		store.db.transaction(() => holdOutgoing(store, { hold: true, ...by }))()
		expect(await send({ status: 200 })).toEqual([])
		store.db.transaction(() => holdOutgoing(store, { hold: false, ...by }))()
		const [run] = store.prepare<number>('SELECT id FROM run').pluck().all()
		store.db.transaction(() => cancelRun(store, { app, run: sealedRun(run ?? 0), ...by }))()
		expect(await send({ status: 200 })).toEqual([])
	})

	test('is begun ten thousand times a day at most', () => {
		store.db.exec(`
			WITH RECURSIVE i (n) AS (SELECT 1 UNION ALL SELECT n + 1 FROM i WHERE n < 10000)
			INSERT INTO call (cause, run, program, path, body, state, due_at, ends_at)
			SELECT 'c' || n, 1, 'Chandlery', '', '{}', 'done', 0, ${NOW + 1} FROM i`)
		setStock(store, 40)
		setStock(store, 4)
		workOff(store)
		expect(runsOf(store)[1]).toMatchObject({ state: 'given up', error: expect.stringContaining('10,000 times within a day') }) // prettier-ignore
	})

	test('of a program that was removed meanwhile gives the run up', async () => {
		store.db.transaction(() => removeProgram(store, { id: chandlery.id, ...by }))()
		expect(await send({ status: 200 })).toEqual([])
		expect(only()).toMatchObject({
			state: 'given up',
			error: expect.stringContaining('No program is called Chandlery')
		})
	})

	test('is read in the run without its values', () => {
		const [run] = store.prepare<number>('SELECT id FROM run').pluck().all()
		const sheet = readRun(store, { app, id: sealedRun(run ?? 0), ...by })
		expect(sheet?.steps.map(({ cameTo }) => cameTo)).toEqual(['sent to Chandlery'])
		expect(JSON.stringify(sheet)).not.toContain('21')
	})
})

function sealedRun(id: number): string {
	return sealId(store, 'run', id)
}

describe('before it is released', () => {
	const found = (steps: never[], start?: never) => {
		const document = documentOfRoutines([routine({ steps, ...(start ? { start } : {}) })])
		const app = store.db.transaction(() => addAppFrom(store, { document, ...by }))()
		return checkDraft(store, { app, now: NOW }).filter(({ place }) => place.startsWith('Routine'))
	}
	const call = (parts: object) => ({ ...(order as object), ...parts }) as never
	test.each([
		['of a program that nobody knows', call({ program: 'Nobody' }), 'No program is called Nobody'],
		['of none', call({ program: '' }), 'Say which program'],
		['at no path', call({ path: 'orders' }), 'Write it like /orders'],
		['of nothing', call({ lines: [] }), 'It sends nothing yet'],
		['of two values by one name', call({ lines: [give('item', 'a'), give('stock', 'A')] }), 'Two values go by one name']
	])('a call %s is said', (_what, step, says) => {
		expect(found([step]).map(({ message }) => message).join(' ')).toContain(says) // prettier-ignore
	})

	test('what leaves is listed', () => {
		const remarks = found([order]).filter(({ weight }) => weight === 'remark')
		expect(remarks.map(({ message }) => message)).toEqual([
			'Item, which is item, leaves the workspace for Chandlery.',
			'Missing, which is least - stock, leaves the workspace for Chandlery.'
		])
	})

	test('a row that another program would send is refused', () => {
		const start = { kind: 'request', from: 'Chandlery' } as never
		const says = found([{ id: 't', kind: 'take', what: 'a row', rows: ITEMS, holds: 'which' } as never], start)
		expect(says.map(({ message }) => message).join(' ')).toContain('knows no rows of ours')
	})

	test('what its builder does not see does not leave', () => {
		expect(() =>
			release(store, [routine({ steps: [call({ lines: [give('cost', 'Cost')] })] })], { person: IMKE })
		).toThrow()
		expect(COST).toBe(26)
	})
})

describe('the list of programs', () => {
	test('is the stewards’: others neither read nor change it', () => {
		const asImke = { actor: { person: IMKE }, now: NOW }
		expect(() => listPrograms(store, asImke)).toThrow()
		expect(() => removeProgram(store, { id: chandlery.id, ...asImke })).toThrow()
		expect(() => renewProgram(store, { id: chandlery.id, sealedSecret: 'x', ...asImke })).toThrow()
		const fresh = { name: 'Other', address: '', sealedSecret: 'x' }
		expect(() => addProgram(store, { ...fresh, ...asImke })).toThrow()
	})

	test('tells no secret, and its secret is sealed', () => {
		expect(JSON.stringify(listPrograms(store, by))).not.toContain('ecret')
		const { keyId = '' } = listPrograms(store, by)[0] ?? {}
		expect(programByKey(store, { keyId })?.sealedSecret).not.toContain(SECRET)
	})

	test.each([
		['a name that is taken', { name: 'CHANDLERY' }, 'already'],
		['no name', { name: ' ' }, 'what the program is called'],
		['an address that is none', { address: 'orders' }, 'no address of a program'],
		['an address with a password', { address: 'https://a:b@orders.varrow.example/' }, 'no address of a program'],
		['an address of a file', { address: 'file:///etc/passwd' }, 'no address of a program']
	])('refuses %s', (_what, parts, says) => {
		const fresh = { name: 'Other', address: '', sealedSecret: 'x', ...parts }
		expect(() => store.db.transaction(() => addProgram(store, { ...fresh, ...by }))()).toThrow(says)
	})

	test('keeps in the history who added and removed whom', () => {
		store.db.transaction(() => removeProgram(store, { id: chandlery.id, ...by }))()
		const kinds = store.prepare<string>(`SELECT kind FROM history ORDER BY seq DESC LIMIT 2`).pluck().all()
		expect(kinds).toEqual(['remove a program', 'add a program'])
		expect(DAY).toBe(86_400_000)
	})
})
