/**
 * Every address that scripts of a page ask, by method: what it takes and what it answers. A page's `send` and `ask`, and the route
 * behind, infer from here, so that neither end says what the other does not.
 */
import type { WirePage } from '../query/wire.ts'
import type { Examples, PreviewLines, SaveLines, WhoSees } from './access.ts'
import type { AnswerAsk } from './asks.ts'
import type { TakenAppFile } from './app-files.ts'
import type { TakeCoasts } from './coasts.ts'
import type { SavedBundle } from '../app/bundle.ts'
import type { BundleRequests } from './bundles.ts'
import type { DocumentRequests, SaveDraft } from './bench.ts'
import type { Found } from './find.ts'
import type { FormRequests } from './forms.ts'
import type { Tries } from './formulas.ts'
import type { GivenImport, ImportRequests, ImportState, UndoImport } from './imports.ts'
import type { AskForApp, AtTheDoor } from './joining.ts'
import type { LookRequests } from './looks.ts'
import type { SealCheck } from './logbook.ts'
import type { DeviceKeys } from './notices.ts'
import type { Pair } from './pair.ts'
import type { PersonRequests, TeamRequests } from './people.ts'
import type { Anchors, Groups, HistoryEntry, Option, PastPage, RowRequests, TakenFile } from './rows.ts'
import type { ScreenReads } from './screen-reads.ts'
import type { ListPages, ListValues, ScreenPath } from './screens.ts'
import type { ScreenRequests } from './screen-doings.ts'
import type { StructureRequests } from './structure.ts'

export interface Requests {
	readonly POST: {
		readonly '/people/do': PersonRequests | TeamRequests
		readonly '/bench/structure': StructureRequests
		readonly '/bench/try': Tries
		readonly '/bench/looks': LookRequests
		readonly '/bench/imports': UndoImport
		readonly '/bench/bundles': BundleRequests
		readonly '/bench/coasts': TakeCoasts
		readonly '/notices/device': Pair<DeviceKeys, void>
		readonly '/waiting/door': AtTheDoor
		readonly '/waiting/app': AskForApp
		readonly '/waiting/answer': AnswerAsk
		readonly [address: `/bench/imports/${string}`]: ImportRequests
		readonly [address: `/bench/${number}/document`]: DocumentRequests
		readonly [address: `/bench/lines/${number}`]: PreviewLines
		readonly [address: `/rows/${number}`]: RowRequests
		readonly [address: `${ScreenPath}/do`]: ScreenRequests
		readonly [address: `${ScreenPath}/form`]: FormRequests
		readonly [address: `${ScreenPath}/lines`]: ScreenReads
		readonly [address: `${ScreenPath}/list`]: ListPages
		readonly [address: `${ScreenPath}/values`]: ListValues
	}
	readonly PUT: {
		readonly [address: `/bench/lines/${number}`]: SaveLines
	}
	readonly PATCH: {
		readonly [address: `/bench/${number}/draft`]: SaveDraft
		readonly [address: `/bench/lines/${number}`]: Examples
	}
	readonly DELETE: {
		readonly '/bench/looks': Pair<object, void>
		readonly '/notices/device': Pair<Pick<DeviceKeys, 'endpoint'>, void>
	}
}

/** What is only read, or given in as bytes. */
export interface Answers {
	readonly '/logbook/check': SealCheck
	readonly [address: `/find?${string}`]: readonly Found[]
	readonly [address: `/bench/looks?${string}`]: WhoSees
	readonly [address: `/bench/imports?${string}`]: GivenImport
	readonly [address: `/bench/${number}/bundle`]: SavedBundle
	readonly [address: `/bench/imports/${string}`]: ImportState
	readonly [address: `/rows/${number}?${string}`]: WirePage
	readonly [address: `/rows/${number}/anchors?${string}`]: Anchors
	readonly [address: `/rows/${number}/groups?${string}`]: Groups | null
	readonly [address: `/rows/${number}/past?${string}`]: PastPage
	readonly [address: `/options/${number}?${string}`]: readonly Option[]
	readonly [address: `/history/${number}?${string}`]: readonly HistoryEntry[]
	readonly [address: `/files/${number}?${string}`]: TakenFile
	readonly [address: `/pictures?${string}`]: TakenAppFile
}
