/**
 * A workspace as the first release of the program wrote it: schema 1, documents of format 1, with a person, a table, an
 * access line and a released app whose list was sorted by a number.
 */
import Database from 'better-sqlite3'
import { migrate } from '$lib/server/store/migrate.ts'
import { registerFunctions } from '$lib/server/store/register-functions.ts'

const WORKSPACE = {
	format: 1,
	name: 'Varrow Sound Harbour Trust',
	people: 1,
	tables: [
		{
			id: 1,
			name: 'People',
			keepers: [],
			label: 1,
			columns: [
				{ id: 1, name: 'Name', type: 'text' },
				{ id: 2, name: 'Email', type: 'email', unique: true }
			]
		},
		{
			id: 100,
			name: 'Moorings',
			keepers: [1],
			label: 100,
			columns: [
				{ id: 100, name: 'Code', type: 'code' },
				{ id: 101, name: 'Depth', type: 'decimal', places: 1 }
			]
		}
	],
	roles: [
		{ id: 1, name: 'Everyone', includes: [] },
		{ id: 2, name: 'Builders', includes: [] }
	],
	lines: [{ id: 'a', table: 100, role: 1, verbs: ['see'], where: 'Depth > 2', columns: { kind: 'all' } }]
}

const APP = {
	format: 1,
	name: 'Moorings',
	about: '',
	colour: 'sea',
	screens: [
		{
			id: 's',
			title: 'All',
			lines: [{ id: 'l', kind: 'list', table: 100, where: '', sortBy: 101, columns: [100, 101], opens: null }]
		}
	],
	routines: [],
	signoffs: []
}

export function makeFirstWorkspace(file: string): void {
	const db = new Database(file)
	registerFunctions(db)
	migrate(db, 1)
	db.exec(`
		CREATE TABLE t1 (n INTEGER PRIMARY KEY, rev INTEGER NOT NULL DEFAULT 1, made_by INTEGER, made_at INTEGER NOT NULL, changed_by INTEGER, changed_at INTEGER NOT NULL, c1 TEXT, c1k TEXT, c2 TEXT, c2k TEXT) STRICT;
		CREATE TABLE t100 (n INTEGER PRIMARY KEY, rev INTEGER NOT NULL DEFAULT 1, made_by INTEGER, made_at INTEGER NOT NULL, changed_by INTEGER, changed_at INTEGER NOT NULL, c100 TEXT, c100k TEXT, c101 INTEGER) STRICT;
		INSERT INTO t1 (made_at, changed_at, c1, c1k, c2, c2k) VALUES (0, 0, 'Saskia Holm', 'saskia holm', 'saskia.holm@varrow.example', 'saskia.holm@varrow.example'), (0, 0, 'Imke Dahl', 'imke dahl', 'imke.dahl@varrow.example', 'imke.dahl@varrow.example');
		INSERT INTO t100 (made_at, changed_at, c100, c100k, c101) VALUES (0, 0, 'VQ-001', 'vq-001', 90), (0, 0, 'NH-001', 'nh-001', 12), (0, 0, 'GS-101', 'gs-101', 30);
		INSERT INTO role_held (person, role) VALUES (1, 2);
		INSERT INTO app (id, name, colour, live_release, made_at, made_by) VALUES (1, 'Moorings', 'sea', 1, 0, 1);`)
	db.prepare(
		`INSERT INTO document (kind, version, body, made_at) VALUES ('workspace', 1, ?, 0), ('app 1', 1, ?, 0)`
	).run(JSON.stringify(WORKSPACE), JSON.stringify(APP))
	db.prepare(`INSERT INTO release (app, number, body, made_at, made_by) VALUES (1, 1, ?, 0, 1)`).run(
		JSON.stringify(APP)
	)
	db.close()
}
