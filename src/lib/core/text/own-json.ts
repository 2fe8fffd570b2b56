/**
 * JSON that this program wrote itself, as what it wrote: nothing is checked again. What comes from outside passes a schema.
 *
 *     ownJson<{ seq: number; seal: string } | null>(readFileSync(head, 'utf8'))
 */
export function ownJson<T>(text: string): T {
	return JSON.parse(text) as T
}
