/**
 * What is signed of an HTTP request, as RFC 9421 has it: the lines of the components that are covered, and the parameters of the
 * signature. Pure; whoever signs or verifies brings the key.
 */
import { parseDictionary, serializeInnerList, type InnerList, type Item } from 'structured-headers'

export interface SignedRequest {
	readonly method: string
	/** Whole, as it was asked for. */
	readonly url: string
	/** By their names in lower case. */
	readonly headers: Readonly<Record<string, string>>
}

/** A signature as it came in `Signature-Input`. */
export interface SignatureInput {
	readonly label: string
	/** The names of what is covered, in order. */
	readonly components: readonly string[]
	/** Epoch seconds. */
	readonly created: number | undefined
	readonly expires: number | undefined
	readonly keyId: string | undefined
	readonly alg: string | undefined
	/** The components and the parameters, as they stand in the last line of what is signed. */
	readonly parameters: string
}

export interface SignatureParameters {
	/** Epoch seconds. */
	readonly created: number
	readonly keyId: string
	readonly alg?: string
}

const NO_PARAMETERS: Item[1] = new Map()

/** Components and parameters as `Signature-Input` holds them, without the label. */
export function sayParameters(components: readonly string[], { created, keyId, alg }: SignatureParameters): string {
	const items = components.map((name): Item => [name, NO_PARAMETERS])
	const parameters: InnerList[1] = new Map<string, number | string>([
		['created', created],
		['keyid', keyId],
		...(alg === undefined ? [] : [['alg', alg] as const])
	])
	return serializeInnerList([items, parameters])
}

/** The signatures that a request says it has; undefined where that cannot be read. */
export function readSignatureInputs(header: string): SignatureInput[] | undefined {
	try {
		return [...parseDictionary(header)].map(([label, member]) => readInput(label, member))
	} catch {
		return undefined
	}
}

function readInput(label: string, [items, parameters]: Item | InnerList): SignatureInput {
	if (!Array.isArray(items)) throw new Error('Expected a list of components')
	// A component with parameters of its own (`;sf`, `;bs`, `;req`) is none that we know how to read.
	const components = items.map(([name, own]) => {
		if (typeof name !== 'string' || own.size > 0) throw new Error('Expected a plain name')
		return name
	})
	const numberOf = (key: string) => {
		const value = parameters.get(key)
		return typeof value === 'number' ? value : undefined
	}
	const textOf = (key: string) => {
		const value = parameters.get(key)
		return typeof value === 'string' ? value : undefined
	}
	return {
		...{ label, components, created: numberOf('created'), expires: numberOf('expires') },
		...{ keyId: textOf('keyid'), alg: textOf('alg'), parameters: serializeInnerList([items, parameters]) }
	}
}

/** The text that is signed (section 2.5); undefined where a component is named twice, is not there, or is none that we know. */
export function signatureBase(
	request: SignedRequest,
	{ components, parameters }: Pick<SignatureInput, 'components' | 'parameters'>
): string | undefined {
	if (new Set(components).size < components.length) return undefined
	const lines: string[] = []
	for (const name of components) {
		const value = name.startsWith('@') ? derived(request, name) : field(request, name)
		if (value === undefined) return undefined
		lines.push(`"${name}": ${value}`)
	}
	return [...lines, `"@signature-params": ${parameters}`].join('\n')
}

function field({ headers }: SignedRequest, name: string): string | undefined {
	return headers[name]?.trim().replace(/\r?\n\s*/g, ' ')
}

/** Section 2.2. */
function derived({ method, url }: SignedRequest, name: string): string | undefined {
	const read = new URL(url)
	switch (name) {
		case '@method':
			return method.toUpperCase()
		case '@target-uri':
			return url
		case '@authority':
			// A standard port is left out by the parser itself.
			return read.host.toLowerCase()
		case '@scheme':
			return read.protocol.slice(0, -1)
		case '@request-target':
			return read.pathname + read.search
		case '@path':
			return read.pathname
		case '@query':
			return read.search === '' ? '?' : read.search
		default:
			return undefined
	}
}
