/** Type-checks files of the project with some of them changed, as the compiler would. */
import { readFileSync } from 'node:fs'
import { relative, resolve } from 'node:path'
import ts from 'typescript'

const { options } = ts.parseJsonConfigFileContent(
	ts.readConfigFile('tsconfig.json', (path) => readFileSync(path, 'utf8')).config,
	ts.sys,
	process.cwd()
)

/** What is wrong in those files, each as its file and the message; `changed`: the new text of files, by path. */
export function typeCheck(files: readonly string[], changed: Readonly<Record<string, string>>): string[] {
	const overlay = new Map(Object.entries(changed).map(([path, text]) => [resolve(path), text]))
	const host = ts.createCompilerHost(options)
	const { readFile, fileExists } = host
	host.fileExists = (path) => overlay.has(resolve(path)) || fileExists.call(host, path)
	const read = (path: string) => overlay.get(resolve(path)) ?? readFile.call(host, path)
	host.readFile = read
	host.getSourceFile = (path, language) => {
		const text = read(path)
		return text === undefined ? undefined : ts.createSourceFile(path, text, language)
	}
	const program = ts.createProgram({ rootNames: files.map((path) => resolve(path)), options, host })
	return files.flatMap((path) =>
		program.getSemanticDiagnostics(program.getSourceFile(resolve(path))).map(({ file, messageText }) => {
			const where = file ? relative(process.cwd(), file.fileName) : path
			return `${where}: ${ts.flattenDiagnosticMessageText(messageText, ' ')}`
		})
	)
}
