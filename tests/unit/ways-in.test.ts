import { beforeEach, describe, expect, test } from 'vitest'
import { editsBetween } from '$lib/core/app/edits/edits-between.ts'
import { addAppFrom, saveDraft } from '$lib/server/apps/apps.ts'
import { releaseApp } from '$lib/server/apps/release-app.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'
import { addSession, describePerson, findSession } from '$lib/server/rights/accounts.ts'
import { arrive, comeIn, findSignUp, readDoor, completeSignUp } from '$lib/server/joining/door.ts'
import { BY_MAIL, listProofs, setProof } from '$lib/server/joining/door-proofs.ts'
import { giveRole } from '$lib/server/people/grants.ts'
import { askForApp } from '$lib/server/joining/ask-for-app.ts'
import { decideAccessRequest, listAccessRequests, waitsAt } from '$lib/server/joining/access-requests.ts'
import { addProvider, arriveVouched, listProviders, removeProvider } from '$lib/server/joining/providers.ts'
import { BUILDER, STEWARD } from '$lib/server/rights/system-roles.ts'
import { readSharing, shareApp } from '$lib/server/people/sharing.ts'
import { visitorOf } from '$lib/server/joining/visitors.ts'
import { addWay, closeWay, listWays, type NewWay } from '$lib/server/joining/ways-in.ts'
import { addTeam, giveTeamRole, joinTeam } from '$lib/server/people/teams.ts'
import { saveWorkspace } from '$lib/server/structure/save.ts'
import { oneListApp } from '../support/one-list-app.ts'
import { readRows } from '$lib/server/rows/read.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import type { Store } from '$lib/server/store/store.ts'

const NOW = Date.parse('2026-11-24T12:00:00Z')
const DAY = 86_400_000
const [MOORINGS, CODE, CLERKS, CREWS, MASTER, HALE] = [2, 10, 5, 6, 2, 3]
const by = { actor: { person: KEEPER }, now: NOW }

let store: Store
let app: number

beforeEach(() => {
	const see = (id: string, role: number) => ({
		id,
		table: MOORINGS,
		role,
		verbs: ['see' as const],
		where: '',
		columns: { kind: 'all' as const }
	})
	store = openScratch({
		now: NOW,
		tables: [
			{
				id: MOORINGS,
				name: 'Moorings',
				keepers: [KEEPER],
				label: CODE,
				columns: [{ id: CODE, name: 'Code', type: 'code' }]
			},
			{ id: 3, name: 'Notices', keepers: [KEEPER], label: 20, columns: [{ id: 20, name: 'Text', type: 'text' }] }
		],
		roles: [
			{ id: 1, name: 'Everyone', includes: [] },
			{ id: BUILDER, name: 'Builders', includes: [] },
			{ id: STEWARD, name: 'Stewards', includes: [] },
			{ id: CLERKS, name: 'Clerks', includes: [] },
			{ id: CREWS, name: 'Crews', includes: [] }
		],
		lines: [see('a', CLERKS), see('b', CREWS), { ...see('c', 1), table: 3 }]
	})
	store.db.exec(`
		INSERT INTO role_held (person, role) VALUES (${KEEPER}, 2);
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k, c2, c2k) VALUES
			(${MASTER}, 0, 0, 'Osric Vane', 'osric vane', 'osric@varrow.example', 'osric@varrow.example'),
			(${HALE}, 0, 0, 'Hale Dunmore', 'hale dunmore', 'hale@varrow.example', 'hale@varrow.example');
		INSERT INTO account (person, password_hash) VALUES (${KEEPER}, 'x'), (${MASTER}, 'x'), (${HALE}, 'x')`)
	const add = (table: number, column: number, value: string) =>
		changeRows(store, [{ kind: 'add', table, cells: [{ column, value }] }], { ...by, through: 'grid' })
	add(MOORINGS, CODE, 'NH-001')
	add(3, 20, 'Crane out of order')
	const document = oneListApp('Quayside', MOORINGS, CODE)
	app = addAppFrom(store, { document, ...by })
	releaseApp(store, { app, note: '', ...by })
})

const way = (given: Partial<NewWay> & Pick<NewWay, 'kind'>) =>
	addWay(store, {
		app,
		word: '',
		role: given.team === undefined ? CLERKS : null,
		team: null,
		usesLeft: null,
		endsAt: null,
		asks: '',
		words: '',
		...given,
		...by
	})

const coming = (code = '', now = NOW) => ({ app, code, answer: '', phraseIsRight: false, now })
const rolesOf = (person: number) => describePerson(store, person)?.roleNames
/** The token that was mailed last, read out of the message as its reader would. */
const mailed = () =>
	String(store.db.prepare('SELECT link FROM message ORDER BY id DESC LIMIT 1').pluck().get()).split('/').at(-1) ?? ''
const codesSeen = (person: number) => readRows(store, { person }, { table: MOORINGS }, NOW).rows.length

describe('an address at a domain', () => {
	test('comes in by a link that is sent there, as a new person with the role', () => {
		way({ kind: 'domain', word: '@Varrow.example' })
		arrive(store, { ...coming(), name: 'Linnet Oakes', email: 'linnet@varrow.example' })
		const token = mailed()
		expect(findSignUp(store, { token, now: NOW })).toMatchObject({ name: 'Linnet Oakes', known: false })
		const { person, isNew } = completeSignUp(store, { token, hash: 'hashed', now: NOW })
		expect([isNew, rolesOf(person), codesSeen(person)]).toEqual([true, ['Clerks'], 1])
		expect(() => completeSignUp(store, { token, hash: 'hashed', now: NOW })).toThrow(/has been used/)
	})

	test('of another domain, or of one that only ends alike, is refused', () => {
		way({ kind: 'domain', word: 'varrow.example' })
		for (const email of ['a@elsewhere.example', 'a@notvarrow.example', 'a@varrow.example.elsewhere.example'])
			expect(() => arrive(store, { ...coming(), name: 'A', email })).toThrow(/Only addresses at varrow.example/)
	})

	test('that is known keeps its password: its owner signs in with it', () => {
		way({ kind: 'domain', word: 'varrow.example' })
		arrive(store, { ...coming(), name: 'Somebody Else', email: 'HALE@varrow.example'.toLowerCase() })
		expect(completeSignUp(store, { token: mailed(), hash: 'other', now: NOW })).toMatchObject({
			person: HALE,
			isNew: false
		})
		expect(store.db.prepare('SELECT password_hash FROM account WHERE person = ?').pluck().get(HALE)).toBe('x')
		expect(describePerson(store, HALE)?.name).toBe('Hale Dunmore')
	})

	test('gets at most three links an hour, and each ends after a day', () => {
		way({ kind: 'domain', word: 'varrow.example' })
		for (let i = 0; i < 5; i++) arrive(store, { ...coming(), name: 'L', email: 'linnet@varrow.example' })
		expect(store.db.prepare('SELECT count(*) FROM message').pluck().get()).toBe(3)
		expect(findSignUp(store, { token: mailed(), now: NOW + DAY + 1 })).toBeNull()
	})
})

describe('an invitation code', () => {
	test('puts whoever is signed in into its team, as often as it may', () => {
		const team = addTeam(store, { name: 'Quay office', ...by })
		way({ kind: 'code', word: 'QUAY-2027', team, role: null, usesLeft: 1 })
		comeIn(store, { ...coming('quay 2027'), person: HALE })
		expect(store.db.prepare('SELECT person FROM team_member WHERE team = ?').pluck().all(team)).toEqual([HALE])
		expect(() => comeIn(store, { ...coming('QUAY2027'), person: MASTER })).toThrow(/as often as it may be/)
	})

	test('that is wrong, over, or used up is told apart', () => {
		way({ kind: 'code', word: 'QUAY-2027', endsAt: NOW + DAY })
		expect(() => comeIn(store, { ...coming('QUAY-2026'), person: HALE })).toThrow(/not a code of this app/)
		expect(() => comeIn(store, { ...coming('QUAY-2027', NOW + 2 * DAY), person: HALE })).toThrow(/time is over/)
		comeIn(store, { ...coming('QUAY-2027'), person: HALE })
		expect(rolesOf(HALE)).toEqual(['Clerks'])
	})

	test('leaves what somebody holds already as it is, with the right to pass it on', () => {
		giveRole(store, { person: HALE, role: CLERKS, mayPassOn: true, ...by })
		way({ kind: 'code', word: 'QUAY-2027' })
		comeIn(store, { ...coming('QUAY-2027'), person: HALE })
		expect(store.db.prepare('SELECT may_pass_on FROM role_held WHERE person = ?').pluck().get(HALE)).toBe(1)
	})

	test('of a steward who is one no more lets nobody in', () => {
		way({ kind: 'code', word: 'QUAY-2027' })
		giveRole(store, { person: HALE, role: STEWARD, mayPassOn: false, ...by })
		store.db.prepare('DELETE FROM role_held WHERE person = ? AND role = ?').run(KEEPER, STEWARD)
		expect(() => comeIn(store, { ...coming('QUAY-2027'), person: MASTER })).toThrow(/no longer open/)
		expect(rolesOf(MASTER)).toEqual([])
	})
})

test('a pass phrase lets in once it was found right, and is shown to nobody', () => {
	way({ kind: 'phrase', word: '$argon2id$…' })
	expect(() => comeIn(store, { ...coming('wrong words'), person: HALE })).toThrow(/not a code/)
	comeIn(store, { ...coming('right words'), phraseIsRight: true, person: HALE })
	expect(rolesOf(HALE)).toEqual(['Clerks'])
	expect(JSON.stringify([listWays(store, by), readDoor(store, { app })])).not.toContain('argon2')
})

describe('the doorstep', () => {
	beforeEach(() => {
		giveRole(store, { person: MASTER, role: CLERKS, mayPassOn: true, ...by })
		way({ kind: 'doorstep', asks: 'Which boat?', words: 'Wait at the office.' })
		comeIn(store, { ...coming(), answer: 'The Petrel', person: HALE })
	})

	test('tells those who may let in, and shows who waits only the waiting words', () => {
		expect(readDoor(store, { app, person: HALE })?.at).toMatchObject({ state: 'waiting', words: 'Wait at the office.' })
		expect(waitsAt(store, { person: HALE })).toEqual([{ app, name: 'Quayside' }])
		expect(codesSeen(HALE)).toBe(0)
		const told = store.db.prepare(`SELECT person FROM message WHERE subject LIKE '%asks to come into%'`).pluck().all()
		expect(told).toEqual(expect.arrayContaining([KEEPER, MASTER]))
		for (const person of [KEEPER, MASTER])
			expect(listAccessRequests(store, { actor: { person } })).toMatchObject([
				{ name: 'Hale Dunmore', answer: 'The Petrel' }
			])
		expect(listAccessRequests(store, { actor: { person: HALE } })).toEqual([])
	})

	test('lets in by who may pass the role on, and tells who waited', () => {
		const [knock] = listAccessRequests(store, { actor: { person: MASTER } })
		decideAccessRequest(store, { id: knock?.id ?? 0, letIn: true, actor: { person: MASTER }, now: NOW })
		expect([codesSeen(HALE), readDoor(store, { app, person: HALE })?.at?.state]).toEqual([1, 'let in'])
		expect(store.db.prepare(`SELECT subject FROM message WHERE person = ?`).pluck().all(HALE)).toEqual([
			'Quayside is open to you'
		])
		expect(() => decideAccessRequest(store, { id: knock?.id ?? 0, letIn: false, ...by })).toThrow(/Nobody waits/)
	})

	test('turns away, and may be asked once more; knocking twice is one knock', () => {
		comeIn(store, { ...coming(), person: HALE })
		const [knock, ...more] = listAccessRequests(store, { actor: { person: KEEPER } })
		expect(more).toEqual([])
		decideAccessRequest(store, { id: knock?.id ?? 0, letIn: false, ...by })
		expect([codesSeen(HALE), readDoor(store, { app, person: HALE })?.at?.state]).toEqual([0, 'turned away'])
		expect(comeIn(store, { ...coming(), person: HALE }).state).toBe('waiting')
	})

	test('is nobody’s to open for themselves', () => {
		const [knock] = listAccessRequests(store, { actor: { person: KEEPER } })
		const actor = { person: HALE }
		expect(() => decideAccessRequest(store, { id: knock?.id ?? 0, letIn: true, actor, now: NOW })).toThrow(
			/Nobody waits/
		)
		expect(codesSeen(HALE)).toBe(0)
	})
})

describe('who came by a link that is not open to them', () => {
	const ask = (person: number, words = 'For the tide book', screen = 's', at = app) =>
		askForApp(store, { app: at, screen, words, actor: { person }, now: NOW })
	const waiting = (person = KEEPER) => listAccessRequests(store, { actor: { person } })

	test('asks the stewards, who choose what they are to hold', () => {
		ask(HALE)
		ask(HALE, 'Once more')
		expect(waiting()).toMatchObject([
			{ name: 'Hale Dunmore', app: 'Quayside', gives: null, answer: 'For the screen Today.\nFor the tide book' }
		])
		expect(waiting()[0]?.roles.map(({ name }) => name)).toEqual(['Clerks', 'Crews'])
		// Nobody waits at a door that is none: they are not led to it.
		expect(waitsAt(store, { person: HALE })).toEqual([])
		expect(store.db.prepare(`SELECT person FROM message WHERE subject LIKE '%asks to come into%'`).pluck().all()).toEqual([KEEPER]) // prettier-ignore
		const id = waiting()[0]?.id ?? 0
		expect(() => decideAccessRequest(store, { id, letIn: true, ...by })).toThrow('Choose the role')
		decideAccessRequest(store, { id, letIn: true, role: CREWS, ...by })
		expect([rolesOf(HALE), codesSeen(HALE), waiting()]).toEqual([['Crews'], 1, []])
	})

	test('is turned away, and is nobody’s to let in but a steward’s', () => {
		giveRole(store, { person: MASTER, role: CLERKS, mayPassOn: true, ...by })
		ask(HALE)
		expect(waiting(MASTER)).toEqual([])
		const id = waiting()[0]?.id ?? 0
		const [other, self] = [MASTER, HALE].map((person) => ({ actor: { person }, now: NOW }))
		for (const whose of [other, self])
			expect(() => decideAccessRequest(store, { id, letIn: true, role: CLERKS, ...(whose ?? by) })).toThrow(
				'Nobody waits'
			)
		decideAccessRequest(store, { id, letIn: false, ...by })
		expect([waiting(), codesSeen(HALE)]).toEqual([[], 0])
	})

	test('learns nothing of an app that is not there, and is slowed', () => {
		expect(() => ask(MASTER, '', 'nothing', 999)).not.toThrow()
		expect(waiting()).toEqual([])
		expect(() => {
			for (let i = 0; i < 10; i++) ask(MASTER, '', '', 999)
		}).toThrow('asked very often')
	})
})

describe('who waits on the doorstep is not kept there', () => {
	const atDoor = () => readDoor(store, { app, person: HALE })?.at?.state

	test('by a role that was given by hand meanwhile', () => {
		way({ kind: 'doorstep' })
		comeIn(store, { ...coming(), person: HALE })
		giveRole(store, { person: HALE, role: CLERKS, mayPassOn: false, ...by })
		expect([atDoor(), waitsAt(store, { person: HALE })]).toEqual(['let in', []])
		expect(listAccessRequests(store, { actor: { person: KEEPER } })).toEqual([])
	})

	test('nor sent there who has what it gives already', () => {
		way({ kind: 'doorstep' })
		giveRole(store, { person: HALE, role: CLERKS, mayPassOn: false, ...by })
		expect(atDoor()).toBe('let in')
		expect(comeIn(store, { ...coming(), person: HALE }).state).toBe('let in')
		expect(waitsAt(store, { person: HALE })).toEqual([])
		expect(listAccessRequests(store, { actor: { person: KEEPER } })).toEqual([])
	})

	test('when the doorstep is closed', () => {
		const id = way({ kind: 'doorstep' })
		way({ kind: 'code', word: 'QUAY-2027' })
		comeIn(store, { ...coming(), person: HALE })
		closeWay(store, { way: id, ...by })
		expect([atDoor(), waitsAt(store, { person: HALE })]).toEqual(['outside', []])
		comeIn(store, { ...coming('QUAY-2027'), person: HALE })
		expect(codesSeen(HALE)).toBe(1)
	})

	test('and a steward by a team is told of them too', () => {
		const team = addTeam(store, { name: 'Office', ...by })
		giveTeamRole(store, { team, role: STEWARD, ...by })
		joinTeam(store, { team, person: MASTER, ...by })
		way({ kind: 'doorstep' })
		comeIn(store, { ...coming(), person: HALE })
		const told = store.db.prepare(`SELECT person FROM message WHERE subject LIKE '%asks to come into%'`).pluck().all()
		expect(told).toEqual(expect.arrayContaining([KEEPER, MASTER]))
	})
})

test('the link to a stranger holds no words of whoever asked for it', () => {
	way({ kind: 'domain', word: 'varrow.example' })
	arrive(store, { ...coming(), name: 'Claim your prize at elsewhere.example', email: 'linnet@varrow.example' })
	const mail = store.db.prepare('SELECT subject, body, to_name FROM message ORDER BY id DESC').get()
	expect(JSON.stringify(mail)).not.toContain('prize')
})

describe('visitors', () => {
	test('see what their role sees, and nothing that everyone who is named does', () => {
		way({ kind: 'visitors', role: CREWS })
		const person = visitorOf(store, { app }) ?? 0
		expect(codesSeen(person)).toBe(1)
		expect(readRows(store, { person }, { table: 3 }, NOW).rows).toEqual([])
		expect(readRows(store, { person: HALE }, { table: 3 }, NOW).rows).toHaveLength(1)
		expect(describePerson(store, person)).toMatchObject({ visits: app, isBuilder: false, isSteward: false })
	})

	test('hold no role by a condition that their row happens to fit', () => {
		const { document } = store.workspace()
		const roles = document.roles.map((role) => (role.id === CLERKS ? { ...role, where: 'NOT ISBLANK(name)' } : role))
		saveWorkspace(store, { ...document, roles }, { now: NOW, by: KEEPER })
		way({ kind: 'visitors', role: CREWS })
		expect(rolesOf(HALE)).toEqual(['Clerks'])
		expect(rolesOf(visitorOf(store, { app }) ?? 0)).toEqual(['Crews'])
	})

	test('are shown out when the way is closed', () => {
		const id = way({ kind: 'visitors', role: CREWS })
		const person = visitorOf(store, { app }) ?? 0
		addSession(store, { tokenHash: 'h', person, now: NOW, expiresAt: NOW + DAY, through: 'visit', agent: '' })
		closeWay(store, { way: id, ...by })
		expect([visitorOf(store, { app }), codesSeen(person)]).toEqual([null, 0])
		expect(findSession(store, { tokenHash: 'h', now: NOW })).toBeUndefined()
	})
})

describe('a way in is refused', () => {
	test.each([
		['that leads to builders', { kind: 'code', word: 'QUAY-2027', role: BUILDER }, /named by hand/],
		['that leads to stewards', { kind: 'domain', word: 'varrow.example', role: STEWARD }, /named by hand/],
		['with too short a code', { kind: 'code', word: 'Q-1' }, /six letters/],
		['with no domain', { kind: 'domain', word: 'varrow' }, /written like/],
		['into a role that is gone', { kind: 'code', word: 'QUAY-2027', role: 99 }, /not there/]
	] as const)('%s', (_what, given, message) => {
		expect(() => way(given)).toThrow(message)
	})

	test('for who is no steward', () => {
		const asked = { app, kind: 'doorstep' as const, word: '', role: CLERKS, team: null, usesLeft: null, endsAt: null }
		expect(() => addWay(store, { ...asked, asks: '', words: '', actor: { person: HALE }, now: NOW })).toThrow(
			/Only stewards/
		)
		expect(() => listWays(store, { actor: { person: HALE }, now: NOW })).toThrow(/Only stewards/)
	})
})

describe('sharing an app', () => {
	const share = (given: Partial<Parameters<typeof shareApp>[1]>) =>
		shareApp(store, { app, person: HALE, role: CLERKS, team: null, tells: true, words: 'Welcome.', ...by, ...given })

	test('gives the role, tells whoever gets it, and shows who has it as what', () => {
		share({})
		expect([rolesOf(HALE), codesSeen(HALE)]).toEqual([['Clerks'], 1])
		const [shared] = readSharing(store, by)
		const row = store.ids.toId(1, HALE)
		expect(shared?.people).toContainEqual({ row, roles: [CLERKS], builds: false })
		expect(store.db.prepare('SELECT subject, link FROM message WHERE person = ?').get(HALE)).toEqual({
			subject: 'Keeper shares Quayside with you',
			link: `/app/${app}`
		})
	})

	test('does all of it or nothing, and only what its giver may', () => {
		expect(() => share({ role: null })).toThrow(/as what they get it/)
		expect(() => share({ role: 1 })).toThrow(/does not open Quayside/)
		expect(() => share({ actor: { person: MASTER } })).toThrow(/may not|may give|steward/i)
		expect(() => readSharing(store, { actor: { person: MASTER }, now: NOW })).toThrow(/shared by stewards/)
		expect([rolesOf(HALE), store.db.prepare('SELECT count(*) FROM message').pluck().get()]).toEqual([[], 0])
	})

	test('tells who may pass a role on of the apps and people that are theirs to see, and no others', () => {
		giveRole(store, { person: MASTER, role: CREWS, mayPassOn: true, ...by })
		giveRole(store, { person: HALE, role: CLERKS, mayPassOn: false, ...by })
		const [shared] = readSharing(store, { actor: { person: MASTER }, now: NOW })
		expect([shared?.name, shared?.people]).toEqual(['Quayside', []])
		store.db.prepare('UPDATE role_held SET role = 4 WHERE person = ? AND role = ?').run(MASTER, CREWS)
		expect(readSharing(store, { actor: { person: MASTER }, now: NOW })).toEqual([])
	})

	test('makes a co-builder, who is led to the Bench', () => {
		share({ role: BUILDER })
		expect(describePerson(store, HALE)?.isBuilder).toBe(true)
		expect(store.db.prepare('SELECT link FROM message WHERE person = ?').pluck().get(HALE)).toBe(
			`/bench/${app}/screens`
		)
	})
})

test('a release tells those who get the app by it, however many there are, and nobody twice', () => {
	giveRole(store, { person: HALE, role: CLERKS, mayPassOn: false, ...by })
	// Names that stand before Hale's: more than pages list.
	const many = Array.from({ length: 250 }, (_one, i) => `(${i + 10}, 0, 0, 'A ${i}', 'a ${i}')`)
	store.db.exec(`INSERT INTO t1 (n, made_at, changed_at, c1, c1k) VALUES ${many.join(', ')}`)
	const told = () =>
		store.db
			.prepare(`SELECT person FROM message WHERE subject = 'Quayside is open to you' ORDER BY person`)
			.pluck()
			.all()
	const document = oneListApp('Quayside', MOORINGS, CODE)
	const other = addAppFrom(store, { document, ...by })
	releaseApp(store, { app: other, note: '', tells: true, ...by })
	expect(told()).toEqual([HALE])
	giveRole(store, { person: MASTER, role: CREWS, mayPassOn: false, ...by })
	saveDraft(store, {
		app: other,
		version: 1,
		edits: editsBetween(document, { ...document, about: 'For crews' }),
		...by
	})
	releaseApp(store, { app: other, note: '', tells: true, ...by })
	expect(told()).toEqual([HALE])
})

describe('by what somebody proves at a door who they are', () => {
	const set = (proof: number, open: boolean, door = app) => setProof(store, { app: door, proof, open, ...by })
	const provider = (name: string) => {
		addProvider(store, { name, issuer: `https://${name}.example`, clientId: 'x', sealedSecret: 'x', ...by })
		return listProviders(store, by).find((each) => each.name === name)?.id ?? 0
	}
	const shown = () => {
		const door = readDoor(store, { app })
		return [door?.byMail, door?.providers.map(({ name }) => name)]
	}
	const vouchedBy = (id: number) => ({
		provider: id,
		subject: 's',
		name: 'Linnet Oakes',
		email: 'linnet@varrow.example'
	})

	beforeEach(() => void way({ kind: 'domain', word: 'varrow.example' }))

	test('all that there are serve, until a steward shuts one at this door', () => {
		const [quay, brig] = [provider('Quay'), provider('Brig')]
		expect(shown()).toEqual([true, ['Brig', 'Quay']])
		set(brig, false)
		expect(shown()).toEqual([true, ['Quay']])
		expect(() => arriveVouched(store, { ...coming(), vouched: vouchedBy(brig) })).toThrow('does not serve at this door')
		const person = arriveVouched(store, { ...coming(), vouched: vouchedBy(quay) })
		expect(rolesOf(person)).toEqual(['Clerks'])
		set(brig, true)
		expect(shown()).toEqual([true, ['Brig', 'Quay']])
	})

	test('where links are not sent, none is', () => {
		provider('Quay')
		set(BY_MAIL, false)
		expect(shown()).toEqual([false, ['Quay']])
		const given = { ...coming(), name: 'Linnet Oakes', email: 'linnet@varrow.example' }
		expect(() => arrive(store, given)).toThrow('No links are sent from this door.')
		expect(store.db.prepare('SELECT count(*) FROM message').pluck().get()).toBe(0)
	})

	test('another app keeps its own; the last one stays; only stewards choose', () => {
		const quay = provider('Quay')
		const document = oneListApp('Harbour office', MOORINGS, CODE)
		const other = addAppFrom(store, { document, ...by })
		releaseApp(store, { app: other, note: '', ...by })
		way({ kind: 'domain', word: 'varrow.example', app: other })
		set(quay, false, other)
		expect(shown()).toEqual([true, ['Quay']])
		expect(
			listProofs(store, { ...by, apps: [app, other] }).map(({ proofs }) => proofs.map(({ open }) => open))
		).toEqual([
			[true, true],
			[true, false]
		])
		expect(() => set(BY_MAIL, false, other)).toThrow('Then nobody new could come in.')
		const asMaster = { actor: { person: MASTER }, now: NOW }
		expect(() => setProof(store, { app, proof: quay, open: false, ...asMaster })).toThrow(/steward/i)
		expect(() => listProofs(store, { ...asMaster, apps: [app] })).toThrow(/steward/i)
		expect(() => set(99, false)).toThrow('Nobody can prove who they are by that here.')
	})

	test('a provider that is removed leaves nothing shut behind', () => {
		const quay = provider('Quay')
		set(quay, false)
		removeProvider(store, { provider: quay, ...by })
		expect(store.db.prepare('SELECT count(*) FROM shut_at_door').pluck().get()).toBe(0)
		expect(shown()).toEqual([true, []])
	})
})
