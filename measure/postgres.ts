/** A PostgreSQL of Debian's, started for a measurement in a folder of its own and gone with it. Undefined where there is none. */
import { spawnSync } from 'node:child_process'
import { chownSync, existsSync, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

export interface Postgres {
	readonly version: string
	run(sql: string): string
	/** Runs a statement as one of its people, by number; each run's time in ms, as its own client sees it. */
	time(sql: string, person: number, runs: number): number[]
	close(): void
}

const PLACE = '/usr/lib/postgresql'

export function openPostgres(): Postgres | undefined {
	const version = existsSync(PLACE) ? readdirSync(PLACE).sort().at(-1) : undefined
	if (version === undefined) return undefined
	const bin = join(PLACE, version, 'bin')
	const folder = mkdtempSync(join(tmpdir(), 'tin-shed-postgres-'))
	const user = otherUser()
	// It refuses to run as root.
	if (user) chownSync(folder, user.uid, user.gid)
	const data = join(folder, 'data')
	const call = (name: string, args: readonly string[], input?: string): string => {
		const result = spawnSync(join(bin, name), args, {
			encoding: 'utf8',
			cwd: folder,
			...user,
			...(input ? { input } : {})
		})
		if (result.status !== 0) throw new Error(`Cannot run ${name}: ${result.stderr}`)
		return result.stdout
	}
	const sql = (text: string) =>
		call('psql', ['-X', '-q', '-v', 'ON_ERROR_STOP=1', '-h', folder, '-U', 'measure', '-d', 'postgres'], text)
	call('initdb', ['-D', data, '-U', 'measure', '-A', 'trust', '--no-sync', '-E', 'UTF8', '--locale=C'])
	const options = `-c listen_addresses='' -c unix_socket_directories=${folder} -c shared_buffers=512MB -c work_mem=64MB`
	// Its output goes to a file, or its server would hold the pipe open.
	call('pg_ctl', ['-D', data, '-w', '-l', join(folder, 'log'), '-o', options, 'start'])
	return {
		version,
		run: sql,
		time(text, person, runs) {
			const lines = ['\\o /dev/null', `SET ROLE p${person};`, `PREPARE q AS ${text};`, 'EXECUTE q;', '\\timing on']
			const said = sql([...lines, ...Array<string>(runs).fill('EXECUTE q;')].join('\n'))
			return [...said.matchAll(/Time: ([\d.]+) ms/g)].map((match) => Number(match[1]))
		},
		close() {
			call('pg_ctl', ['-D', data, '-m', 'immediate', 'stop'])
			rmSync(folder, { recursive: true, force: true })
		}
	}
}

/** Debian's own user for it, if this runs as root. */
function otherUser(): { uid: number; gid: number } | undefined {
	if (process.getuid?.() !== 0) return undefined
	const line = readFileSync('/etc/passwd', 'utf8')
		.split('\n')
		.find((each) => each.startsWith('postgres:'))
	const [, , uid, gid] = line?.split(':') ?? []
	if (uid === undefined) throw new Error('Cannot start PostgreSQL as root, and there is no user "postgres"')
	return { uid: Number(uid), gid: Number(gid) }
}
