/**
 * Opens a file that was given in, as sheets of text. Files are hostile until read: what they are is told by their
 * content, sizes are bounded, and a file that is damaged, empty, locked or not what it says is refused in plain words.
 */
import { createReadStream } from 'node:fs'
import { open, stat } from 'node:fs/promises'
import { openDatabase } from './open-database.ts'
import { openRecords } from './open-records.ts'
import { openText } from './open-text.ts'
import { openWorkbook } from './workbook/open-workbook.ts'
import { refusedFile, type OpenedFile } from './sheet.ts'

const SQLITE_MARK = [...Buffer.from('SQLite format 3\0')]

export async function openFile(path: string, name: string): Promise<OpenedFile> {
	const { size } = await stat(path)
	if (size === 0) throw refusedFile(`${name} is empty. Nothing was brought in.`)
	const head = await readHead(path, 4096)
	if (startsWith(head, COMPOUND_MARK)) throw refusedFile(`${name} ${await compoundKind(path)}`)
	if (startsWith(head, SQLITE_MARK)) return openDatabase(path, name)
	if (startsWith(head, [0x50, 0x4b])) return openWorkbook(path, name)
	const what = whatElse(head)
	if (what !== undefined) throw refusedFile(`${name} is ${what}, and holds no table that can be read. ${REMEDY}`)
	if (isBinary(head) && isWorkbookName(name))
		throw refusedFile(
			`${name} says it is a workbook, but it is not: its first bytes are no archive's. Open it in your spreadsheet and save it again.`
		)
	if (isBinary(head)) throw refusedFile(`${name} is no text, workbook, JSON or SQLite file, so it was not read.`)
	if (isJson(name, head)) return openRecords(path, name)
	const text = await openText(path, name)
	return isWorkbookName(name) ? withNote(text, `${name} is no workbook but a text, and is read as one.`) : text
}

/** As a compound file begins: a workbook of before 2007, or one that is locked (MS-CFB, 2.2, from memory). */
const COMPOUND_MARK = [0xd0, 0xcf, 0x11, 0xe0]
/** What a locked workbook keeps its archive under. */
const LOCKED_NAME = Buffer.from('EncryptedPackage', 'utf16le')

async function compoundKind(path: string): Promise<string> {
	let before: Buffer = Buffer.alloc(0)
	for await (const piece of createReadStream(path)) {
		// Files are read as bytes.
		const bytes = Buffer.concat([before, piece as Buffer])
		if (bytes.includes(LOCKED_NAME)) return 'is locked with a password. Save it again without one.'
		before = bytes.subarray(-LOCKED_NAME.length)
	}
	return 'is of an old kind of file, of before 2007. Save it again as .xlsx.'
}

const REMEDY = 'Open it where it comes from, and save the table as .xlsx or .csv.'

function isWorkbookName(name: string): boolean {
	return /\.(xlsx|xlsm|ods)$/i.test(name)
}

/** What a file is that is no table, by how it begins. */
function whatElse(head: Uint8Array): string | undefined {
	if (startsWith(head, GZIP_MARK)) return 'packed (gzip)'
	const text = Buffer.from(head)
		.toString('latin1')
		.replace(/^(\u00ef\u00bb\u00bf)?\s*(<!--[^]*?-->\s*)*/, '')
	return ELSE.find(([begins]) => begins.test(text))?.[1]
}

/** As gzip begins (RFC 1952). */
const GZIP_MARK = [0x1f, 0x8b]

const ELSE: readonly (readonly [begins: RegExp, what: string])[] = [
	[/^<(!doctype html|html|head|body|table)\b/i, 'a web page'],
	[/^<\?xml|^<[a-z][\w:.-]*[\s>]/i, 'XML'],
	[/^%PDF-/, 'a PDF'],
	[/^\{\\rtf/, 'a text of a word processor (RTF)'],
	[/^(From |Received: |Return-Path: |MIME-Version: )/i, 'a mail'],
	[/^\u0089PNG|^\u00ff\u00d8\u00ff|^GIF8/, 'a picture']
]

function withNote(file: OpenedFile, note: string): OpenedFile {
	return {
		...file,
		sheets: file.sheets.map((sheet) => ({ ...sheet, notes: () => [note, ...(sheet.notes?.() ?? [])] }))
	}
}

async function readHead(path: string, length: number): Promise<Uint8Array> {
	const file = await open(path)
	try {
		const { buffer, bytesRead } = await file.read(Buffer.alloc(length), 0, length, 0)
		return buffer.subarray(0, bytesRead)
	} finally {
		await file.close()
	}
}

function startsWith(bytes: Uint8Array, wanted: readonly number[]): boolean {
	return wanted.every((byte, i) => bytes[i] === byte)
}

/** By what it holds: a text file may start with a bracket too, but not with a record. */
function isJson(name: string, head: Uint8Array): boolean {
	const text = Buffer.from(head)
		.toString('utf8')
		.replace(/^\ufeff/, '')
		.trimStart()
	return /\.(json|ndjson|jsonl|geojson)$/i.test(name) || /^(\[\s*)?\{\s*("|\})/.test(text)
}

const MOST_STRAY = 8

/** Many noughts that do not come from UTF-16 mark a file that is no text. */
function isBinary(head: Uint8Array): boolean {
	const utf16 = startsWith(head, [0xff, 0xfe]) || startsWith(head, [0xfe, 0xff])
	const odd = head.filter((byte) => byte < 9 || (byte > 13 && byte < 32 && byte !== 27)).length
	// A few characters of no value in a short text are an accident, and told as one.
	return !utf16 && odd > head.length * 0.05 && odd > MOST_STRAY
}
