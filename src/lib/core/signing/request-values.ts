/** What another program sends with a request: read by the kinds that a routine takes, and described for who writes that program. */
import { z } from 'zod'
import type { HeldKind } from '../formula/check/rename.ts'
import type { Plain } from '../model/formula.ts'

const MOST_TEXT = 5_000

type Type = Extract<HeldKind, { type: unknown }>['type']

const VALUES: { readonly [T in Type]: z.ZodType<Plain> } = {
	text: z.string().max(MOST_TEXT),
	number: z.number(),
	date: z.iso.date(),
	yesno: z.boolean()
}

/** Every value by its name, each there and no other; null for a blank one. Rows are known to nobody outside. */
export function requestSchema(takes: Readonly<Record<string, HeldKind>>): z.ZodType<Record<string, Plain>> {
	const values = Object.entries(takes).flatMap(([name, kind]) =>
		'type' in kind ? [[name, VALUES[kind.type].nullable()] as const] : []
	)
	return z.strictObject(Object.fromEntries(values))
}

/** What was sent, by name; or, in words for who wrote the program, what is wrong with it. */
export function readRequest(
	takes: Readonly<Record<string, HeldKind>>,
	body: string
): { readonly values: Readonly<Record<string, Plain>> } | { readonly why: string } {
	let json: unknown
	try {
		json = JSON.parse(body)
	} catch {
		return { why: 'The body is no JSON.' }
	}
	const read = requestSchema(takes).safeParse(json)
	if (read.success) return { values: read.data }
	const [issue] = read.error.issues
	const place = issue?.path.join('.') ?? ''
	return { why: place === '' ? (issue?.message ?? 'The body is not what is taken.') : `${place}: ${issue?.message}` }
}

export interface Described {
	/** Of the routine. */
	readonly name: string
	/** Where it is asked for, whole. */
	readonly address: string
	readonly takes: Readonly<Record<string, HeldKind>>
}

/** The request as OpenAPI 3.1 describes it. */
export function openApi({ name, address, takes }: Described): object {
	const { origin, pathname } = new URL(address)
	const header = (called: string, says: string) => ({
		...{ name: called, in: 'header', required: true, description: says },
		schema: { type: 'string' }
	})
	const problem = (description: string) => ({ description, content: { 'application/problem+json': {} } })
	return {
		openapi: '3.1.0',
		info: { title: name, version: '1' },
		servers: [{ url: origin }],
		paths: {
			[pathname]: {
				post: {
					summary: name,
					parameters: [
						header('Idempotency-Key', 'A name for this piece of work. Sent again, it is done once.'),
						header('Content-Digest', 'RFC 9530, sha-256 of the body.'),
						header(
							'Signature-Input',
							'RFC 9421, hmac-sha256 over "@method" "@authority" "@path" "@query" "content-type" "content-digest" "idempotency-key", with created and keyid.'
						),
						header('Signature', 'RFC 9421.')
					],
					requestBody: {
						required: true,
						content: { 'application/json': { schema: z.toJSONSchema(requestSchema(takes)) } }
					},
					responses: {
						202: { description: 'It is begun. "run" is a name for it.' },
						401: problem('The signature is not known, too old, or does not cover what it must.'),
						404: problem('Nothing is asked for here by this program.'),
						422: problem('The values are not what is taken, or the key was used for something else.'),
						429: problem('Too many at once. Ask again later.')
					}
				}
			}
		}
	}
}
