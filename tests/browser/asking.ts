/** Asks the running demo as one of its people, without a page. */
import Database from 'better-sqlite3'
import { expect, request, type APIRequestContext } from '@playwright/test'
import type { DemoPerson } from '../../demo/people.ts'

export const BASE = 'http://127.0.0.1:4799'
export const FILE = 'test-results/workspace/workspace.db'

export async function signInAs(person: Pick<DemoPerson, 'name'>, number: number): Promise<APIRequestContext> {
	const api = await request.newContext({ baseURL: BASE, extraHTTPHeaders: { origin: BASE } })
	const answer = await api.post('/sign-in?/demo', { form: { person: String(number) }, maxRedirects: 0 })
	expect(answer.status(), `${person.name} signs in`).toBeLessThan(400)
	return api
}

export function numbersOfPeople(): ReadonlyMap<string, number> {
	const db = new Database(FILE, { readonly: true })
	const rows = db.prepare('SELECT c1 AS name, n FROM t1').all() as { name: string; n: number }[]
	db.close()
	return new Map(rows.map((row) => [row.name, row.n]))
}
