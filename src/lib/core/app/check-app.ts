/**
 * The check before a release: everything in the document that would not work, each with its place and the remedy, and
 * what a builder should have looked at.
 */
import { check, checkCondition } from '../formula/check/check.ts'
import type { Expr } from '../model/formula.ts'
import { isSameTree, someNode } from '../formula/syntax/walk.ts'
import type { Line } from '../access/types.ts'
import { parseMessage } from '../routine/message-text.ts'
import { findColumn, type Catalogue, type Table } from '../model/table.ts'
import type { AppDocument, Routine, ScreenLine, Signoff } from './document.ts'

export interface Finding {
	/** A mistake keeps the release back; a remark is to be looked at. */
	readonly weight: 'mistake' | 'remark'
	readonly place: string
	readonly message: string
}

export function checkApp(document: AppDocument, catalogue: Catalogue, lines: readonly Line[]): Finding[] {
	const screens = document.screens.flatMap((screen) =>
		screen.lines.flatMap((line, i) =>
			checkScreenLine(line, { document, catalogue, lines }).map(at(`${screen.title}, line ${i + 1}`))
		)
	)
	const routines = document.routines.flatMap((routine) =>
		checkRoutine(routine, catalogue).map(at(`Routine ${routine.name}`))
	)
	const signoffs = document.signoffs.flatMap((signoff) =>
		checkSignoff(signoff, catalogue).map(at(`Sign-off ${signoff.name}`))
	)
	const none: Finding[] =
		document.screens.length === 0 ? [{ weight: 'mistake', place: 'Screens', message: 'There is no screen yet.' }] : []
	return [...none, ...screens, ...routines, ...signoffs]
}

type Found = Omit<Finding, 'place'>

function at(place: string): (found: Found) => Finding {
	return (found) => ({ ...found, place })
}

function mistake(message: string): Found[] {
	return [{ weight: 'mistake', message }]
}

interface Whole {
	readonly document: AppDocument
	readonly catalogue: Catalogue
	readonly lines: readonly Line[]
}

function checkScreenLine(line: ScreenLine, whole: Whole): Found[] {
	if (line.kind === 'heading') return []
	if (line.kind === 'button') return checkButton(line, whole.document)
	const table = whole.catalogue.tables.get(line.table)
	if (!table) return mistake('Its table is gone. Choose another.')
	const found = checkColumns(line.columns, table)
	if (line.kind === 'form') return [...found, ...checkForm(line, table, whole.lines)]
	const verb = whole.lines.some((each) => each.table === table.id && each.verbs.includes('see'))
	const unseen: Found[] = verb
		? []
		: [{ weight: 'remark', message: `No line of access lets anybody see ${table.name}, so this stays empty.` }]
	return line.kind === 'list' ? [...found, ...unseen, ...checkList(line, table, whole)] : [...found, ...unseen]
}

function checkButton(line: ScreenLine & { kind: 'button' }, document: AppDocument): Found[] {
	const { does } = line
	if (line.label.trim() === '') return mistake('The button has no words on it.')
	if (does === null) return mistake('The button does nothing yet. Choose what it opens or runs.')
	if (does.kind === 'open')
		return document.screens.some((screen) => screen.id === does.screen) ? [] : mistake('The screen it opens is gone.')
	const routine = document.routines.find((each) => each.id === does.routine)
	return routine?.start.kind === 'button' ? [] : mistake('The routine it runs is gone, or starts by itself.')
}

function checkForm(line: ScreenLine & { kind: 'form' }, table: Table, lines: readonly Line[]): Found[] {
	const missing = table.columns.filter((column) => column.required && !line.columns.includes(column.id))
	const left = missing.map((column): Found => ({
		weight: 'mistake',
		message: `"${column.name}" must be filled in, but the form does not ask for it.`
	}))
	const may = lines.some((each) => each.table === table.id && each.verbs.includes('add'))
	return may
		? left
		: [
				...left,
				{
					weight: 'remark',
					message: `No line of access lets anybody add to ${table.name}, so nobody is offered this form.`
				}
			]
}

function checkList(line: ScreenLine & { kind: 'list' }, table: Table, { document, catalogue, lines }: Whole): Found[] {
	const found: Found[] = []
	if (line.opens !== null && !document.screens.some((screen) => screen.id === line.opens))
		found.push(...mistake('The screen it opens is gone.'))
	if (line.sort && !findColumn(table, line.sort.column)) found.push(...mistake('The column it is sorted by is gone.'))
	if (line.where.trim() === '') return found
	const { expr, issues } = checkCondition(line.where, { catalogue, rows: [table], me: true })
	for (const issue of issues) found.push(...mistake(issue.message))
	if (expr && readsMe(expr) && !isGuarded(expr, table, lines)) {
		const message =
			'This hides rows by who looks; it does not guard them. Write the same condition as a line of access if they must not be seen.'
		found.push({ weight: 'remark', message })
	}
	return found
}

/** Whether each line that lets rows be seen asks at least what the list does, as far as the texts tell. */
function isGuarded(expr: Expr, table: Table, lines: readonly Line[]): boolean {
	const asked = partsOfAnd(expr)
	const seeing = lines.filter((line) => line.table === table.id && line.verbs.includes('see'))
	return seeing.every((line) => {
		const has = partsOfAnd(line.where)
		return asked.filter(readsMe).every((part) => has.some((each) => isSameTree(each, part)))
	})
}

function partsOfAnd(expr: Expr): readonly Expr[] {
	return expr.kind === 'and' ? expr.args.flatMap(partsOfAnd) : [expr]
}

/** Also by way of a named condition or another computed column. */
function readsMe(expr: Expr): boolean {
	return someNode(
		expr,
		(node) =>
			node.kind === 'me' ||
			(node.kind === 'field' && node.column.computed !== undefined && readsMe(node.column.computed.expr))
	)
}

function checkColumns(ids: readonly number[], table: Table): Found[] {
	if (ids.length === 0) return mistake('It shows no column yet.')
	return ids.every((id) => findColumn(table, id)) ? [] : mistake(`A column it shows is no longer in ${table.name}.`)
}

function checkRoutine(routine: Routine, catalogue: Catalogue): Found[] {
	const table = catalogue.tables.get(routine.start.table)
	if (!table) return mistake('Its table is gone. Choose another.')
	const found: Found[] = routine.steps.length === 0 ? mistake('It has no step yet.') : []
	if (routine.start.kind === 'rows' && routine.start.where.trim() !== '') {
		const { issues } = checkCondition(routine.start.where, { catalogue, rows: [table], me: false })
		found.push(...issues.flatMap((issue) => mistake(issue.message)))
	}
	return [...found, ...routine.steps.flatMap((step) => checkStep(step, table, { catalogue, routine }))]
}

function checkStep(
	step: Routine['steps'][number],
	table: Table,
	{ catalogue, routine }: { catalogue: Catalogue; routine: Routine }
): Found[] {
	if (step.kind === 'send') {
		const to = checkPerson(step.to, table, catalogue)
		const texts = [step.subject, step.body].flatMap((text) => parseMessage(text, catalogue, table).issues)
		return [...to, ...texts.flatMap((issue) => mistake(issue.message))]
	}
	if (routine.start.kind !== 'button')
		return mistake('A step that sets a column needs a button to start it: it acts as whoever pressed.')
	const column = findColumn(table, step.column)
	if (!column) return mistake('The column it sets is gone.')
	if (column.computed) return mistake(`${column.name} is worked out from other columns, and cannot be set.`)
	return check(step.formula, { catalogue, rows: [table], me: true }).issues.flatMap((issue) => mistake(issue.message))
}

/** A formula that names a person gives a row of the people table, or an address. */
function checkPerson(formula: string, table: Table, catalogue: Catalogue): Found[] {
	const { expr, issues } = check(formula, { catalogue, rows: [table], me: false })
	if (!expr) return issues.flatMap((issue) => mistake(issue.message))
	const names = (expr.type.kind === 'row' && expr.type.table.id === catalogue.people.id) || expr.type.kind === 'text'
	return names ? [] : mistake('This names no person. Use a reference to a person, or an email address.')
}

function checkSignoff(signoff: Signoff, catalogue: Catalogue): Found[] {
	const table = catalogue.tables.get(signoff.table)
	if (!table) return mistake('Its table is gone. Choose another.')
	const found = [...checkColumns(signoff.columns, table), ...checkPerson(signoff.decider, table, catalogue)]
	if (signoff.where.trim() !== '') {
		const { issues } = checkCondition(signoff.where, { catalogue, rows: [table], me: false })
		found.push(...issues.flatMap((issue) => mistake(issue.message)))
	}
	return found
}
