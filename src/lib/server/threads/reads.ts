/** Everything that a reader thread can be asked, by name. Each runs in one snapshot. */
import { findAppFile } from '../apps/app-files.ts'
import { appByWord, wordOf } from '../apps/app-word.ts'
import { findRelease, listApps, listReleases, readDraft } from '../apps/apps.ts'
import { placesIn } from '../apps/places-in.ts'
import { lookAtBundle } from '../bundles/look-at-bundle.ts'
import { makeBundle } from '../bundles/make-bundle.ts'
import { lookOver } from '../apps/look-over.ts'
import { plannedRelease } from '../apps/timed-release.ts'
import { readOpenings } from '../apps/screen-openings.ts'
import { screensGained } from '../apps/screens-gained.ts'
import { compareDocument } from '../apps/document-file.ts'
import { whoSees } from '../apps/who-sees.ts'
import { readOwnDay } from '../logbook/own-day.ts'
import { giveValues, type Giving } from '../apps/give-values.ts'
import { findAnything } from '../apps/find-anything.ts'
import { judgeFilled, offerChoices } from '../apps/forms/fill-form.ts'
import {
	readAgain,
	type AgainRequest,
	openScreen,
	readList,
	readValues,
	screensFor,
	type ListRequest,
	type ScreenRequest
} from '../apps/open-screen.ts'
import { checkUpload, readFileCell } from '../rows/uploads.ts'
import { findAccount, findSession, describePerson } from '../rights/accounts.ts'
import { listSessions, readZone } from '../credentials/own-account.ts'
import { mayUsePassword, readSignInWays } from '../credentials/password-use.ts'
import { readOutsideAsk } from '../routines/answer-outside.ts'
import { readPushKeys } from '../queue/devices.ts'
import { listPrograms, programByKey, programNames } from '../outside/programs.ts'
import { findProvider, listProviders } from '../joining/providers.ts'
import { findOneTimeLink } from '../credentials/one-time-links.ts'
import { readPeople } from '../people/people-sheet.ts'
import type { Actor, ByActor } from '../rights/rights-of-actor.ts'
import { findSecondFactor } from '../credentials/second-factor.ts'
import { seenTables } from '../rights/seen-tables.ts'
import { isDemo, listTray, trayFile } from '../post/tray.ts'
import { countAsks, listAsks, readAsk } from '../routines/answer-ask.ts'
import { makeReport, reportRows } from '../routines/make-report.ts'
import { tryRoutine } from '../apps/try-routine.ts'
import { countGivenUp, listRuns, readRun, routineStates, runsGivenUp } from '../routines/read-runs.ts'
import { countUnread, listNotices, noticeFile } from '../queue/notices.ts'
import { readOutgoing } from '../queue/outgoing.ts'
import { readTelling } from '../queue/telling.ts'
import { queueState } from '../jobs/run-jobs.ts'
import { describeColumns } from '../rows/describe-columns.ts'
import { readAnchors } from '../rows/read-anchors.ts'
import { readRows } from '../rows/read.ts'
import type { RowsRequest } from '../rows/resolve.ts'
import { readGroups } from '../rows/read-groups.ts'
import { readPast, type PastRequest } from '../rows/read-past.ts'
import { readHistory } from '../rows/read-history.ts'
import { countWaiting, listCases, readCase } from '../signoffs/cases.ts'
import { measureMerge } from '../sources/judge-merge.ts'
import { readComparison } from '../sources/read-comparison.ts'
import type { Store } from '../store/store.ts'
import { listPeople, listTables, tryCondition, vocabularyOf } from '../review/bench.ts'
import { previewTableRemoval, removedTables } from '../structure/take-out-table.ts'
import { readMatrix } from '../review/access-matrix.ts'
import { proposeAccess } from '../review/propose-access.ts'
import { readAccess } from '../review/read-access.ts'
import { findSignUp, readDoor, readPhrase } from '../joining/door.ts'
import { listProofs } from '../joining/door-proofs.ts'
import { countAccessRequests, listAccessRequests, waitsAt } from '../joining/access-requests.ts'
import { readSharing } from '../people/sharing.ts'
import { visitorOf } from '../joining/visitors.ts'
import { listWays } from '../joining/ways-in.ts'
import { previewConversion, previewRemoval } from '../structure/change-columns.ts'
import { explainAccess } from '../review/explain-access.ts'
import { findRelations } from '../structure/find-relations.ts'
import { previewReference } from '../structure/tables.ts'
import { standInPeople } from '../people/stand-in-people.ts'
import { tryFormula } from '../review/try-formula.ts'
import { readSettings } from '../structure/set-workspace.ts'
import { checkSeals, listLogbook } from '../logbook/logbook.ts'

export const READS = {
	account: findAccount,
	session: findSession,
	sessions: listSessions,
	oneTimeLink: findOneTimeLink,
	signInWays: readSignInWays,
	mayUsePassword,
	outsideAsk: readOutsideAsk,
	pushKeys: readPushKeys,
	programs: listPrograms,
	programNames,
	programByKey,
	providers: listProviders,
	provider: findProvider,
	secondFactor: findSecondFactor,
	peopleSheet: readPeople,
	personNumber: (store: Store, { row }: { row: string }) =>
		store.ids.fromId(store.workspace().catalogue.people.id, row) ?? null,
	person: (store: Store, { person }: { person: number }) => describePerson(store, person),
	workspace: (store: Store) => {
		const { name, version, timeZone, writing } = store.workspace()
		return { name, version, timeZone, writing, demo: isDemo(store) }
	},
	settings: readSettings,
	rows: (store: Store, { actor, request, now }: { actor: Actor; request: RowsRequest; now: number }) =>
		readRows(store, actor, request, now),
	anchors: (store: Store, { actor, request, now }: { actor: Actor; request: RowsRequest; now: number }) =>
		readAnchors(store, actor, request, now),
	groups: readGroups,
	/** The name of a table and the columns of it that this person sees; null where there are none. */
	tableHead: (store: Store, { table, actor, now }: { table: number; actor: Actor; now: number }) => {
		const found = store.workspace().catalogue.tables.get(table)
		const page = readRows(store, actor, { table, limit: 1 }, now)
		if (!found || page.columns.length === 0) return null
		return { name: found.name, columns: describeColumns(found, page.columns).filter((column) => !column.condition) }
	},
	/** Rows by their labels, for choosing one to refer to. */
	labels: (
		store: Store,
		{
			actor,
			request,
			now
		}: { actor: Actor; request: { table: number; labelStarts: string; limit: number }; now: number }
	) => {
		const label = store.workspace().catalogue.tables.get(request.table)?.label ?? 0
		const sort = { column: label, descending: false }
		return { label, page: readRows(store, actor, { ...request, columns: [label], sort }, now) }
	},
	seenTables,
	past: (store: Store, { actor, request, now }: { actor: Actor; request: PastRequest; now: number }) =>
		readPast(store, actor, request, now),
	history: readHistory,
	ownDay: readOwnDay,
	checkUpload,
	fileCell: readFileCell,
	apps: listApps,
	appFile: findAppFile,
	appByWord,
	wordOf,
	appsFor: (store: Store, { actor, now }: ByActor) =>
		listApps(store)
			.filter((app) => app.live !== null)
			.filter((app) => screensFor(store, { app: app.id, draft: false, actor, now }).length > 0),
	draft: (store: Store, { app }: { app: number }) => readDraft(store, app),
	lookOver,
	lookAtBundle,
	placesIn,
	makeBundle,
	compareDocument,
	plannedRelease,
	screensGained,
	openings: readOpenings,
	releases: (store: Store, { app }: { app: number }) => listReleases(store, app),
	release: (store: Store, asked: { app: number; number: number }) => findRelease(store, asked),
	screen: (store: Store, request: ScreenRequest) => openScreen(store, request),
	again: (store: Store, request: AgainRequest) => readAgain(store, request),
	give: (store: Store, request: Giving) => giveValues(store, request),
	list: (store: Store, request: ListRequest) => readList(store, request),
	judgeFilled,
	offerChoices,
	findAnything,
	listValues: (store: Store, request: Parameters<typeof readValues>[1]) => readValues(store, request),
	bench: (store: Store, asking: ByActor) => {
		const tables = listTables(store, asking)
		const { version, document } = store.workspace()
		return {
			version,
			tables,
			vocabulary: vocabularyOf(store, tables),
			removed: removedTables(store, asking.actor, asking.now).map(({ table: { id, name }, at }) => ({ id, name, at })),
			lines: document.lines.length,
			people: listPeople(store)
		}
	},
	access: readAccess,
	proposeAccess,
	whoSees,
	accessMatrix: readMatrix,
	explainAccess,
	tryCondition,
	tryFormula,
	previewReference,
	findRelations,
	measureMerge,
	comparison: readComparison,
	previewRemoval,
	previewTableRemoval,
	previewConversion,
	cases: listCases,
	asks: listAsks,
	ask: readAsk,
	notices: listNotices,
	telling: readTelling,
	outgoing: readOutgoing,
	/** What stands in every page's head: what waits on somebody, and what they have not read. */
	waiting: (store: Store, { actor, now }: ByActor) => ({
		waiting:
			countWaiting(store, actor) +
			countAsks(store, { actor, now }) +
			countAccessRequests(store, actor) +
			countGivenUp(store, { actor }),
		unread: countUnread(store, actor.person)
	}),
	ways: listWays,
	proofs: listProofs,
	sharing: readSharing,
	door: readDoor,
	phrase: readPhrase,
	visitorOf,
	signUp: findSignUp,
	accessRequests: listAccessRequests,
	waitsAt,
	zone: readZone,
	case: readCase,
	tray: listTray,
	trayFile,
	makeReport,
	reportRows,
	noticeFile,
	people: (store: Store) => listPeople(store),
	standInPeople: (store: Store) => standInPeople(store),
	queue: (store: Store) => queueState(store),
	routineStates,
	listRuns,
	readRun,
	runsGivenUp,
	tryRoutine,
	logbook: listLogbook,
	checkSeals
} as const

export type ReadName = keyof typeof READS
