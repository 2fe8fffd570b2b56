/**
 * What is said to whoever runs the program when it cannot go on: one sentence on what is wrong and one on what to do. Nobody
 * who starts a program reads a stack.
 */

/** Something that only whoever runs the program can mend; its message is meant for them as it stands. */
export class OperatorError extends Error {
	override readonly name = 'OperatorError'
}

/** Says what went wrong with a workspace, if it is one of the things that go wrong with disks and files. */
export function sayForOperator(error: unknown, folder: string): string | undefined {
	if (!(error instanceof Error)) return undefined
	// From another thread an error comes without its class.
	if (error.name === 'OperatorError') return error.message
	const code = 'code' in error && typeof error.code === 'string' ? error.code : ''
	const remedy = REMEDIES.find(({ codes }) => codes.test(code) || codes.test(error.message))
	return remedy?.say(folder)
}

/** Says it and ends the program; what is nothing of the kind keeps its stack. */
export function endForOperator(error: unknown, folder: string): never {
	console.error(sayForOperator(error, folder) ?? error)
	process.exit(1)
}

const REMEDIES: readonly { readonly codes: RegExp; readonly say: (folder: string) => string }[] = [
	{
		codes: /^SQLITE_(CORRUPT|NOTADB)|database disk image is malformed|file is not a database/,
		say: (folder) =>
			`The workspace in ${folder} is damaged. Put the last good copy back: npm run restore -- ${folder}/backup/FILE`
	},
	{
		codes: /^(SQLITE_FULL|ENOSPC)|database or disk is full/,
		say: (folder) => `The disk is full, so nothing can be saved in ${folder}. Make room, then start again.`
	},
	{
		codes:
			/^(SQLITE_READONLY|SQLITE_CANTOPEN|SQLITE_PERM|EACCES|EROFS|EPERM)|readonly database|unable to open database/,
		say: (folder) =>
			`The folder ${folder} cannot be written to. Let the user that runs Tin Shed write to it and to all in it, then start again.`
	},
	{
		codes: /^SQLITE_IOERR|disk I\/O error/,
		say: (folder) =>
			`The disk under ${folder} does not read or write as it should. Look at the disk, then start again, or put a copy back on another one.`
	}
]
