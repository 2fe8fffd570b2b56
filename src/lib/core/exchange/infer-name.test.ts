import { expect, test } from 'vitest'
import { typeFromName } from './infer-name.ts'

/** Judgements of ours, from the names that registers of a small harbour really use. */
test.each([
	['email', 'email'],
	['Mobile number', 'phone'],
	['due date', 'date'],
	['Next due', 'date'],
	['is urgent', 'yes/no'],
	['Paid?', 'yes/no'],
	['made at', 'date and time'],
	['Start time', 'time'],
	['Time taken', 'duration'],
	['Hours worked', 'duration'],
	['Day rate', 'date'],
	['Unit price', 'money'],
	['Number of nights', 'whole number'],
	['Depth', 'decimal'],
	['Location', 'place'],
	['Serial', 'code'],
	['Notes', 'long text'],
	['Name', 'text'],
	['Fees paid', 'money'],
	['Candy', 'text']
])('%s → %s', (name, type) => {
	expect(typeFromName(name)).toBe(type)
})
