/**
 * How a function is written down, and how both lives call it.
 *
 * A body gets its arguments already of their types: blank numbers as 0, blank text as "", sets without their blanks
 * (texts keep them, as ""). A blank date makes the result blank, so no body sees one.
 */
import {
	isErrorValue,
	type Family,
	type FunctionEntry,
	type Given,
	type Parameter,
	type ParameterType,
	type Plain,
	type Value
} from '../../model/formula.ts'
import { ownJson } from '../../text/own-json.ts'

interface ArgumentTypes {
	readonly number: number
	readonly text: string
	readonly date: string
	/** Days: 0.5 is noon, or twelve hours. */
	readonly time: number
	readonly yesno: boolean
	readonly numbers: readonly number[]
	readonly texts: readonly string[]
	readonly dates: readonly string[]
}

type Arguments<P extends readonly Parameter[]> = { [K in keyof P]: ArgumentTypes[P[K]['type']] }

type Definition<P extends readonly Parameter[]> = Omit<
	FunctionEntry,
	'parameters' | 'evaluate' | 'signature' | 'family'
> & {
	readonly parameters: P
	readonly evaluate: (...args: Arguments<P>) => Value
}

/** Starts a family of functions: what it returns writes one of them down. */
export function family(name: Family) {
	return <const P extends readonly Parameter[]>(definition: Definition<P>): FunctionEntry => ({
		...definition,
		family: name,
		signature: signatureOf(definition.name, definition.parameters),
		// The arguments were brought to the types of the parameters by `call`, which alone calls this.
		evaluate: definition.evaluate as unknown as FunctionEntry['evaluate']
	})
}

/** Works a function out on values as a formula or the database brings them. */
export function call(fn: FunctionEntry, values: readonly Given[]): Value {
	const args: Given[] = []
	for (const [i, parameter] of fn.parameters.entries()) {
		const value = values[i] ?? null
		if (parameter.type === 'date' && value === null) return null
		args.push(toArgument(parameter.type, value))
	}
	const result = fn.evaluate(...args)
	return typeof result === 'number' && !Number.isFinite(result) ? { errorCode: 6 } : result
}

/** A set as the database hands it over: JSON text of its values. */
export function decodeSets(fn: FunctionEntry, values: readonly unknown[]): Given[] {
	return values.map((value, i) =>
		// What is no set comes out of the database as it is stored.
		isSetType(fn.parameters[i]?.type) ? ownJson<Plain[]>(String(value ?? '[]')) : (value as Plain)
	)
}

/** Whether a parameter takes many values at once. */
export function isSetType(type: ParameterType | undefined): boolean {
	return type === 'numbers' || type === 'texts' || type === 'dates'
}

/** The number of an error, for the database; null where there is none. */
export function errorNumber(value: Value): number | null {
	return isErrorValue(value) ? value.errorCode : null
}

function toArgument(type: ParameterType, value: Given): Given {
	switch (type) {
		case 'number':
		case 'time':
			return Number(value ?? 0)
		case 'text':
			return String(value ?? '')
		case 'yesno':
			return value === true || (typeof value === 'number' && value !== 0)
		case 'date':
			return value
		case 'texts':
			return toSet(value).map((each) => String(each ?? ''))
		case 'numbers':
			return toSet(value)
				.filter((each) => each !== null)
				.map(Number)
		case 'dates':
			return toSet(value).filter((each) => each !== null)
	}
}

function toSet(value: Given): readonly Plain[] {
	return typeof value === 'object' && value !== null ? value : []
}

function signatureOf(name: string, parameters: readonly Parameter[]): string {
	const parts = parameters.map(({ name: part, otherwise, rest }) => {
		const shown = rest ? `${part}…` : part
		return otherwise === undefined ? shown : `[${shown}]`
	})
	return `${name}(${parts.join('; ')})`
}
