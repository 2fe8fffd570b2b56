/**
 * What of a JSON text is a table (RFC 8259): lists of records, also two levels down; objects whose parts are alike, as a list with
 * their keys; features of GeoJSON with their points as places (RFC 7946: longitude first). What is nested gets a name with dots;
 * lists of records within records are left aside, and said.
 */
export type Json = null | string | number | boolean | readonly Json[] | JsonRecord
export interface JsonRecord {
	readonly [key: string]: Json
}

export interface JsonTable {
	readonly name: string
	readonly columns: readonly string[]
	readonly rows: readonly (readonly string[])[]
	/** Of each row the columns that hold a number. */
	readonly typed: readonly ReadonlySet<number>[]
	/** Names of lists that stand in its records and are no part of it. */
	readonly aside: readonly string[]
}

/**
 * A JSON text as values; undefined where it is none. Whole numbers that a number cannot hold to the last digit (past 2^53) are
 * read as their digits: an id must not become its neighbour.
 */
export function parseJson(text: string): Json | undefined {
	try {
		// JSON.parse gives nothing else.
		return JSON.parse(text.replace(TEXT_OR_LONG_NUMBER, keepDigits)) as Json
	} catch {
		return undefined
	}
}

/** Texts are passed over whole, so that digits in them stay as they are. */
const TEXT_OR_LONG_NUMBER = /"(?:[^"\\]|\\.)*"|-?\d{16,}(?![\d.eE])/g

function keepDigits(found: string): string {
	return found.startsWith('"') || Number.isSafeInteger(Number(found)) ? found : `"${found}"`
}

/** The tables of a document, each by its name there; the document's own where it is one table itself. */
export function tablesIn(found: Json, name: string): JsonTable[] {
	if (isList(found)) return found.length === 0 ? [] : [toTable(name, found)]
	if (!isRecord(found)) return []
	if (isFeatures(found)) return [toTable(name, found.features.map(featureRecord))]
	const lists = listsIn(found)
	if (lists.length > 0) return lists.map(([at, records]) => toTable(at, records))
	const alike = asAlike(found)
	return [toTable(name, alike ?? [found])]
}

/** Lists of records, and objects of like records, at most two levels down. */
function listsIn(record: JsonRecord, prefix = '', depth = 0): [string, readonly Json[]][] {
	return Object.entries(record).flatMap(([key, value]): [string, readonly Json[]][] => {
		const at = prefix === '' ? key : `${prefix}.${key}`
		if (isList(value)) return value.length > 0 && value.every(isRecord) ? [[at, value]] : []
		if (!isRecord(value)) return []
		if (isFeatures(value)) return [[at, value.features.map(featureRecord)]]
		const alike = asAlike(value)
		if (alike) return [[at, alike]]
		return depth < 1 ? listsIn(value, at, depth + 1) : []
	})
}

const LEAST_ALIKE = 2

/** An object of like records as a list, each with the name it had: `{ "NH-1": { depth: 4 }, "NH-2": { depth: 6 } }`. */
function asAlike(record: JsonRecord): JsonRecord[] | undefined {
	const entries = Object.entries(record)
	const records = entries.flatMap(([, value]) => (isRecord(value) ? [value] : []))
	if (entries.length < LEAST_ALIKE || records.length < entries.length) return undefined
	const names = new Set(records.flatMap((each) => Object.keys(each)))
	const shared = records.reduce((all, each) => all + Object.keys(each).length, 0) / records.length
	if (names.size === 0 || shared < names.size / 2) return undefined
	const keyName = names.has('key') ? 'name of the part' : 'key'
	// The caller looked: every value is a record.
	return entries.map(([key, value]) => ({ [keyName]: key, ...(value as JsonRecord) }))
}

interface Features extends JsonRecord {
	readonly features: readonly JsonRecord[]
}

function isFeatures(record: JsonRecord): record is Features {
	const { type, features } = record
	return type === 'FeatureCollection' && features !== undefined && isList(features) && features.every(isRecord)
}

/** Its properties, and where it is; a place is written latitude first here, as people say it. */
function featureRecord({ id, properties, geometry }: JsonRecord): JsonRecord {
	const own = properties !== undefined && isRecord(properties) ? properties : {}
	const shape = geometry !== undefined && isRecord(geometry) ? geometry : {}
	const point = shape['type'] === 'Point' ? shape['coordinates'] : undefined
	const [longitude, latitude] = point !== undefined && isList(point) ? point : []
	const isPlace = typeof longitude === 'number' && typeof latitude === 'number'
	const where: JsonRecord = isPlace
		? { place: `${latitude}, ${longitude}` }
		: { shape: typeof shape['type'] === 'string' ? shape['type'] : '' }
	return { ...(id === undefined || 'id' in own ? {} : { id }), ...own, ...where }
}

function toTable(name: string, records: readonly Json[]): JsonTable {
	const aside = new Set<string>()
	const flat = records.map((record) => flatten(record, aside))
	const columns = [...new Set(flat.flatMap((record) => [...record.keys()]))]
	return {
		name,
		columns,
		rows: flat.map((record) => columns.map((column) => toText(record.get(column) ?? null))),
		typed: flat.map((record) => numbersIn(record, columns)),
		aside: [...aside]
	}
}

/** Which of the columns a record has a number in. */
function numbersIn(record: ReadonlyMap<string, Json>, columns: readonly string[]): ReadonlySet<number> {
	return new Set(columns.flatMap((column, i) => (typeof record.get(column) === 'number' ? [i] : [])))
}

function flatten(record: Json, aside: Set<string>, prefix = '', into = new Map<string, Json>()): Map<string, Json> {
	if (isRecord(record)) {
		for (const [key, value] of Object.entries(record))
			flatten(value, aside, prefix === '' ? key : `${prefix}.${key}`, into)
	} else if (isList(record) && record.some((each) => each !== null && typeof each === 'object')) aside.add(prefix)
	else into.set(prefix === '' ? 'value' : prefix, record)
	return into
}

function toText(value: Json): string {
	if (value === null) return ''
	return isList(value) ? value.map((each) => toText(each)).join('; ') : String(value)
}

function isList(value: Json): value is readonly Json[] {
	return Array.isArray(value)
}

function isRecord(value: Json): value is JsonRecord {
	return typeof value === 'object' && value !== null && !isList(value)
}
