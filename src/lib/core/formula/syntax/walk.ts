import type { Expr } from '../../model/formula.ts'

/** The direct parts of a node, in the order of the text. */
export function partsOf(expr: Expr): readonly Expr[] {
	switch (expr.kind) {
		case 'literal':
		case 'this':
		case 'me':
		case 'now':
		case 'granted':
			return []
		case 'field':
		case 'children':
			return [expr.of]
		case 'filter':
			return [expr.rows, expr.where]
		case 'each':
			return [expr.rows, expr.item]
		case 'sort':
			return [expr.rows, expr.key]
		case 'first':
			return [expr.set]
		case 'list':
			return expr.items
		case 'aggregate':
		case 'and':
		case 'or':
		case 'call':
			return expr.args
		case 'negate':
		case 'totext':
		case 'not':
		case 'isblank':
		case 'iserror':
		case 'istype':
		case 'errortype':
			return [expr.arg]
		case 'arithmetic':
		case 'join':
		case 'compare':
			return [expr.left, expr.right]
		case 'in':
			return [expr.item, ...expr.list]
		case 'if':
			return [expr.test, expr.then, expr.else]
		case 'iferror':
			return [expr.arg, expr.else]
	}
}

/** The same node with other parts. */
export function mapParts(expr: Expr, map: (part: Expr) => Expr): Expr {
	switch (expr.kind) {
		case 'field':
		case 'children':
			return { ...expr, of: map(expr.of) }
		case 'filter':
			return { ...expr, rows: map(expr.rows), where: map(expr.where) }
		case 'each':
			return { ...expr, rows: map(expr.rows), item: map(expr.item) }
		case 'sort':
			return { ...expr, rows: map(expr.rows), key: map(expr.key) }
		case 'first':
			return { ...expr, set: map(expr.set) }
		case 'list':
			return { ...expr, items: expr.items.map(map) }
		case 'aggregate':
		case 'and':
		case 'or':
		case 'call':
			return { ...expr, args: expr.args.map(map) }
		case 'negate':
		case 'totext':
		case 'not':
		case 'isblank':
		case 'iserror':
		case 'istype':
		case 'errortype':
			return { ...expr, arg: map(expr.arg) }
		case 'arithmetic':
		case 'join':
		case 'compare':
			return { ...expr, left: map(expr.left), right: map(expr.right) }
		case 'in':
			return { ...expr, item: map(expr.item), list: expr.list.map(map) }
		case 'if':
			return { ...expr, test: map(expr.test), then: map(expr.then), else: map(expr.else) }
		case 'iferror':
			return { ...expr, arg: map(expr.arg), else: map(expr.else) }
		default:
			return expr
	}
}

/** Whether any node of a tree, the tree itself among them, satisfies a test. */
export function someNode(expr: Expr, test: (node: Expr) => boolean): boolean {
	return test(expr) || partsOf(expr).some((part) => someNode(part, test))
}

/** Whether a tree reads the clock or the looker, so that its value must never be kept. */
export function isVolatile(expr: Expr): boolean {
	return someNode(expr, (node) => {
		if (node.kind === 'now' || node.kind === 'me' || node.kind === 'granted') return true
		return node.kind === 'field' && node.column.computed !== undefined && isVolatile(node.column.computed.expr)
	})
}

/** Whether a tree reads nothing but plain or kept columns of the row it stands on. */
export function readsOwnRowOnly(expr: Expr): boolean {
	return !someNode(expr, (node) => {
		if (node.kind === 'children') return true
		if (node.kind !== 'field') return false
		const own = node.of.kind === 'this' && node.of.level === 0
		return !own || (node.column.computed !== undefined && !node.column.computed.stored)
	})
}

/** The tables whose rows a tree reads, through references and back-references, and through the virtual columns that it reads. */
export function tablesRead(expr: Expr): ReadonlySet<number> {
	const found = new Set<number>()
	const visit = (node: Expr): boolean => {
		if (node.kind === 'children' && node.type.kind === 'rows') found.add(node.type.table.id)
		if (node.kind !== 'field') return false
		if (node.of.kind !== 'this') found.add(node.table.id)
		const { computed } = node.column
		if (computed && !computed.stored) someNode(computed.expr, visit)
		return false
	}
	someNode(expr, visit)
	return found
}

/** The ids of the columns of its own row that a tree reads. */
export function ownColumns(expr: Expr): ReadonlySet<number> {
	const found = new Set<number>()
	someNode(expr, (node) => {
		if (node.kind === 'field' && node.of.kind === 'this' && node.of.level === 0) found.add(node.column.id)
		return false
	})
	return found
}

/** Whether two trees say the same, name for name. */
export function isSameTree(one: Expr, other: Expr): boolean {
	return printTree(one) === printTree(other)
}

/** Tables, columns and functions by what they are known by; they point at one another. */
function printTree(expr: Expr): string {
	return JSON.stringify(expr, (key, value: unknown) => {
		// What is kept of a total follows from it.
		if (key === 'type' || key === 'rollup') return undefined
		if (key === 'backReference') return (value as { column: number }).column
		// These keys hold tables and columns in every node.
		if (key === 'table' || key === 'column') return (value as { id?: number } | undefined)?.id ?? value
		// This key holds a function in every node.
		return key === 'fn' ? (value as { name: string }).name : value
	})
}

/** The functions of a tree that run as code registered with the database instead of SQL of its own. */
export function registeredCalls(expr: Expr): readonly string[] {
	const names = new Set<string>()
	someNode(expr, (node) => {
		if (node.kind === 'call' && !node.fn.sql) names.add(node.fn.name)
		return false
	})
	return [...names]
}

/**
 * What a tree's values follow from, as one text: the tree itself, the formulas of the columns it reads, and the words of
 * their choices. While it is the same, what was kept is still right.
 */
export function basisOf(expr: Expr): string {
	const parts = [printTree(expr)]
	someNode(expr, (node) => {
		if (node.kind !== 'field') return false
		if (node.column.choices) parts.push(node.column.choices.join('\n'))
		if (node.column.computed) parts.push(basisOf(node.column.computed.expr))
		return false
	})
	return parts.join('\n')
}
