/** Everything that the writer thread can be asked, by name. Each runs in a savepoint of the group's transaction. */
import { startFrom } from '../apps/start-from.ts'
import { putDocument } from '../apps/document-file.ts'
import { addApp, addAppFrom, saveDraft } from '../apps/apps.ts'
import { putBackRelease, releaseApp } from '../apps/release-app.ts'
import { callOffRelease, planRelease } from '../apps/timed-release.ts'
import { takeBack } from '../logbook/take-back.ts'
import { sendForm } from '../apps/forms/fill-form.ts'
import { dropUnusedAppFiles, noteAppFile } from '../apps/app-files.ts'
import { setWord } from '../apps/app-word.ts'
import { forgetSearch, keepSearch } from '../apps/kept-searches.ts'
import { noteOpenings } from '../apps/screen-openings.ts'
import { addUp, changeRecord, press, scan, putValue, rate, removeRecord, tick } from '../apps/use-app.ts'
import { moveCard, tryMoves } from '../apps/move-card.ts'
import { putBundle } from '../bundles/put-bundle.ts'
import { moveStop } from '../apps/move-stop.ts'
import { backUp } from '../store/back-up.ts'
import { dropOldUploads, noteUpload } from '../rows/uploads.ts'
import { fireClocks } from '../routines/clocks.ts'
import { openNotice, readAllNotices, clearNotices } from '../queue/notices.ts'
import { addDevice, keepPushKeys, removeDevice } from '../queue/devices.ts'
import { holdOutgoing } from '../queue/outgoing.ts'
import { setTelling } from '../queue/telling.ts'
import { answerAsk } from '../routines/answer-ask.ts'
import { startNow } from '../apps/start-now.ts'
import { cancelRun, setRoutineOn, tryRunAgain } from '../routines/tend-runs.ts'
import { claimCall, finishCall } from '../routines/call-program.ts'
import { answerOutside } from '../routines/answer-outside.ts'
import { takeRequest } from '../routines/take-request.ts'
import { addProgram, removeProgram, renewProgram } from '../outside/programs.ts'
import { runRoutines } from '../routines/run-batch.ts'
import {
	claimPosting,
	claimPush,
	claimReport,
	finishPush,
	finishReport,
	finishPosting,
	putOffPosting,
	runInsideJob
} from '../jobs/run-jobs.ts'
import { addSession, endSession, noteUse, putAccount } from '../rights/accounts.ts'
import { giveRole, takeRole } from '../people/grants.ts'
import { openAsMe } from '../people/open-as-me.ts'
import { changeOwnPassword, endOtherSessions, endOwnSession, setZone } from '../credentials/own-account.ts'
import { askNewPassword, invite, useOneTimeLink } from '../credentials/one-time-links.ts'
import { arrive, comeIn, completeSignUp } from '../joining/door.ts'
import { setProof } from '../joining/door-proofs.ts'
import { addProvider, arriveVouched, comeFromProvider, openPasswords, removeProvider } from '../joining/providers.ts'
import { askForApp } from '../joining/ask-for-app.ts'
import { decideAccessRequest } from '../joining/access-requests.ts'
import { shareApp } from '../people/sharing.ts'
import { addWay, closeWay } from '../joining/ways-in.ts'
import { addPerson, endSessionsOf, letBack, suspend } from '../people/people-changes.ts'
import { addRole, changeRole, removeRole } from '../people/roles.ts'
import {
	confirmSecondFactor,
	dropSecondFactor,
	putSecondFactor,
	takeOffSecondFactor,
	useStep
} from '../credentials/second-factor.ts'
import { addTeam, giveTeamRole, joinTeam, leaveTeam, removeTeam, renameTeam, takeTeamRole } from '../people/teams.ts'
import { takeMessage } from '../post/tray.ts'
import { changeBlock } from '../rows/change-block.ts'
import { changeRows } from '../rows/change.ts'
import type { ChangeContext } from '../rows/change-context.ts'
import type { Change } from '$lib/core/query/change.ts'
import { decideCase } from '../signoffs/cases.ts'
import { beginImport, dropImport, dropUnregistered, finishImport, writeBatch } from '../sources/import-table.ts'
import { applyMerge, applyStep, beginApplying, endApplying, tryStep } from '../sources/apply-merge.ts'
import { judgeStaged, judgeTable } from '../sources/judge-merge.ts'
import { undoStep } from '../sources/undo-merge.ts'
import { beginMerge } from '../sources/stage-merge.ts'
import { tryWrite } from '../store/store-health.ts'
import type { Store } from '../store/store.ts'
import {
	convertColumn,
	changeColumn,
	changeTable,
	removeColumn,
	returnColumn,
	keepPeople,
	setKeepers
} from '../structure/change-columns.ts'
import { becomeTry } from '../store/become-try.ts'
import { startWorkspace } from '../structure/make.ts'
import { setWorkspace } from '../structure/set-workspace.ts'
import { pinExample, unpinExample } from '../review/pin-examples.ts'
import { noteExport, noteFailedSignIn } from '../logbook/logbook.ts'
import { tendIndexes } from '../derived/tend-indexes.ts'
import { putTableBack } from '../structure/restructure.ts'
import { removeTable, returnTable } from '../structure/take-out-table.ts'
import { addColumn, addTable, saveLines, setFormula, setLabel, toReference } from '../structure/tables.ts'

export const WRITES = {
	changeRows: (store: Store, { changes, context }: { changes: Change[]; context: ChangeContext }) =>
		changeRows(store, changes, context),
	changeBlock,
	addSession,
	noteUse,
	endSession,
	putAccount,
	giveRole,
	takeRole,
	addRole,
	changeRole,
	removeRole,
	addTeam,
	renameTeam,
	removeTeam,
	joinTeam,
	leaveTeam,
	giveTeamRole,
	takeTeamRole,
	shareApp,
	addWay,
	closeWay,
	setProof,
	arrive,
	comeIn,
	completeSignUp,
	addProvider,
	removeProvider,
	openPasswords,
	comeFromProvider,
	arriveVouched,
	decideAccessRequest,
	askForApp,
	addPerson,
	suspend,
	letBack,
	endSessionsOf,
	invite,
	askNewPassword,
	useOneTimeLink,
	startWorkspace,
	setWorkspace,
	becomeTry,
	changeOwnPassword,
	endOwnSession,
	setZone,
	endOtherSessions,
	putSecondFactor,
	confirmSecondFactor,
	dropSecondFactor,
	takeOffSecondFactor,
	useStep,
	addApp,
	addAppFrom,
	saveDraft,
	putDocument,
	noteOpenings,
	startFrom,
	planRelease,
	callOffRelease,
	releaseApp,
	putBackRelease,
	sendForm,
	takeBack,
	changeRecord,
	removeRecord,
	press,
	scan,
	tick,
	addUp,
	putValue,
	moveCard,
	moveStop,
	putBundle,
	tryMoves,
	keepSearch,
	forgetSearch,
	rate,
	openNotice,
	readAllNotices,
	clearNotices,
	setTelling,
	holdOutgoing,
	answerAsk,
	decideCase,
	addTable,
	addColumn,
	setFormula,
	setLabel,
	toReference,
	changeColumn,
	changeTable,
	setKeepers,
	keepPeople,
	openAsMe,
	removeColumn,
	returnColumn,
	convertColumn,
	putTableBack,
	saveLines,
	pinExample,
	unpinExample,
	beginImport,
	writeBatch,
	finishImport,
	beginMerge,
	judgeStaged,
	judgeTable,
	applyMerge,
	beginApplying,
	tryStep,
	applyStep,
	endApplying,
	undoStep,
	dropImport,
	dropUnregistered,
	removeTable,
	returnTable,
	runInsideJob,
	runRoutines,
	fireClocks,
	tryRunAgain,
	cancelRun,
	setRoutineOn,
	startNow,
	claimPosting,
	finishPosting,
	claimReport,
	finishReport,
	putOffPosting,
	answerOutside,
	addDevice,
	removeDevice,
	keepPushKeys,
	claimPush,
	finishPush,
	claimCall,
	finishCall,
	takeRequest,
	addProgram,
	renewProgram,
	removeProgram,
	takeMessage,
	noteExport,
	noteFailedSignIn,
	noteUpload,
	dropOldUploads,
	noteAppFile,
	dropUnusedAppFiles,
	setWord,
	tendIndexes,
	tryWrite,
	backUp
} as const

export type WriteName = keyof typeof WRITES

/** Parts of a file that comes in. */
export const FILLING: ReadonlySet<string> = new Set<WriteName>([
	...(['writeBatch', 'judgeStaged', 'judgeTable'] as const),
	...(['tryStep', 'applyStep', 'undoStep'] as const)
])

/** Those, and parts of an index that is made, stand in a lane of their own. */
export const BULK: ReadonlySet<string> = new Set([...FILLING, 'tendIndexes', 'runRoutines'])

/** What people do with rows; building and upkeep may take longer. */
export const STAFF: ReadonlySet<string> = new Set<WriteName>([
	...(['changeRows', 'changeBlock', 'sendForm', 'takeBack', 'changeRecord', 'removeRecord'] as const),
	...(['press', 'scan', 'decideCase', 'answerAsk', 'answerOutside', 'runInsideJob', 'runRoutines'] as const)
])

/** What cannot run inside a transaction. */
export const ALONE: ReadonlySet<string> = new Set<WriteName>(['backUp'])
