/**
 * Measures speed as ratios within one run and writes them to `measure/RESULTS.md`: `npm run measure`.
 *
 * - A page of 50 rows under access lines, on a million rows, against hand-written SQL with the same condition.
 * - A screen of fifteen lists against its statements by hand, and what is sent when one cell changed.
 * - A month of a calendar over a million rows, and a map of 5,000 places.
 * - The same for three roles and five lines, and PostgreSQL's row security beside it.
 * - Bringing in a CSV of 1,000,000 rows against the `sqlite3` shell's `.import` into a table of the same columns.
 * - A workbook of 450,000 rows looked at, against a library's streamed reading, and a small file meanwhile.
 * - Edits of others while that goes on, and while as many rows go into a table that is there.
 * - A formula over three million rows against the same written by hand.
 * - A page with three kept totals over three million child rows, and what it grows with.
 * - The first rows of a grid of a million rows, in Chromium, beside those of a thousand.
 * - How soon the Lookout shows an edit, and how soon a list answers on a slow processor, in Chromium.
 * - What a page of staff brings along, kind of line by kind.
 * - An edit of a cell with all that follows from it, against a transaction written by hand.
 */
import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { cpus, tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { measureAccess } from './access.ts'
import { measureFormula } from './formula.ts'
import { measureImport } from './import.ts'
import { measureInBrowser } from './in-browser.ts'
import { measureEdit } from './edit.ts'
import { measureGrid } from './grid.ts'
import { measureMerge } from './merge.ts'
import { measurePage } from './page.ts'
import { weighStaffPage } from './page-weight.ts'
import { measureScreen } from './screen.ts'
import { measureCharts } from './charts.ts'
import { measureRowsShown } from './rows-shown.ts'
import { measureQueue } from './queue.ts'
import { measureRuns } from './runs.ts'
import { measureTotals } from './totals.ts'
import { workbookFigures } from './workbook-figures.ts'

const folder = mkdtempSync(join(tmpdir(), 'tin-shed-measure-'))
const scripts = resolve('build/threads')

// First, so that the memory it takes is its own.
const brought = await measureImport(folder, scripts)
const workbook = workbookFigures(folder, scripts)
const page = measurePage()
const screen = measureScreen()
const charts = measureCharts()
const shown = measureRowsShown()
const access = await measureAccess()
const formula = measureFormula()
const totals = measureTotals()
const edit = measureEdit(folder)
const runs = measureRuns(folder)
const queue = await measureQueue(folder, scripts)
const grid = await measureGrid(folder, scripts)
const inBrowser = await measureInBrowser(folder, scripts)
const merge = await measureMerge(folder, scripts)
rmSync(folder, { recursive: true, force: true })

const version = spawnSync('sqlite3', ['--version'], { encoding: 'utf8' }).stdout.split(' ')[0] ?? 'not installed'
const weight = weighStaffPage()
const kb = (bytes: number): string => (bytes / 1_000).toFixed(1)
const round = (value: number, places = 2): string => value.toFixed(places)

const text = `# Measured

Made by \`npm run measure\` on ${new Date().toISOString().slice(0, 10)}: ${cpus()[0]?.model.trim() ?? 'unknown processor'}, ${cpus().length} cores, Node ${process.versions.node}, sqlite3 shell ${version}.
Each figure is a ratio within one run, medians; times are there to judge the ratio by, not to be compared across machines.

## A page of 50 rows under access lines, ${page.rows.toLocaleString('en-GB')} rows

The statement inside the reader, prepared beforehand, against hand-written SQL with the same condition, columns and label.

| reader | ours, ms | by hand, ms | ratio | bound |
| --- | --- | --- | --- | --- |
${page.cases.map((each) => `| ${each.name} | ${round(each.ours, 3)} | ${round(each.byHand, 3)} | **${round(each.ours / each.byHand)}** | 1.5 |`).join('\n')}

The whole of \`readRows\` (rights, plan, statement, rows as they travel): ${round(page.whole, 3)} ms.

## A screen of fifteen lists in one snapshot, ${page.rows.toLocaleString('en-GB')} rows

Fifteen pages of 50 and fifteen counts, with rights, plans and rows as they travel, against the same thirty statements by hand alone.

| what | ours, ms | by hand, ms | ratio | bound |
| --- | --- | --- | --- | --- |
| the whole screen | ${round(screen.ours)} | ${round(screen.byHand)} | **${round(screen.ours / screen.byHand)}** | 1.5 |

After one cell changed its lines are read again in ${round(screen.again)} ms; sent are ${kb(screen.sent)} kB (wanted: 5) of ${kb(screen.whole)}.

## Measures by groups, ${page.rows.toLocaleString('en-GB')} rows

The whole of \`readMeasures\` (rights, plan, statement, names), against the statement by hand alone, under the same masks.

| what | ours, ms | by hand, ms | ratio | bound |
| --- | --- | --- | --- | --- |
${charts.map((each) => `| ${each.name} | ${round(each.ours, 0)} | ${round(each.byHand, 0)} | **${round(each.ours / each.byHand)}** | 1.3 |`).join('\n')}

## Rows shown otherwise

The whole line (rights, plans, statements, what stands where), against the rows by hand alone. Wanted: 300 ms.

| what | ours, ms | by hand, ms | ratio | sent, kB |
| --- | --- | --- | --- | --- |
${shown.map((each) => `| ${each.name} | ${round(each.ours, 0)} | ${round(each.byHand, 0)} | **${round(each.ours / each.byHand)}** | ${kb(each.sent)} |`).join('\n')}

## A person with three roles and five lines, ${access.rows.toLocaleString('en-GB')} rows

References among the conditions; by hand with the same condition, and ${access.postgres === null ? 'PostgreSQL (not installed here)' : `PostgreSQL ${access.postgres} with the same rows, indexes and policy, timed by its own client`}.

| what is asked | ours, ms | by hand, ms | ratio | bound | PostgreSQL, ms |
| --- | --- | --- | --- | --- | --- |
${access.cases.map((each) => `| ${each.name} | ${round(each.ours, 2)} | ${round(each.byHand, 2)} | **${round(each.ours / each.byHand)}** | ${each.bound} | ${each.postgres === null ? '' : round(each.postgres, 2)} |`).join('\n')}

What unsaved lines would give and take, for 50 people in ten groups, counted before and after: ${round(access.previewMs / 1000, 2)} s (bound 2).

## What a page of staff brings along

Gzipped, from the build's own list; what a kind of line adds to the frame where it stands alone. Wanted: 60 kB of script for every kind, 15 kB of styles.

| script | kB | with the frame |
| --- | --- | --- |
| frame: the library, the router, the head of the app | ${kb(weight.frame)} | |
${Object.entries(weight.kinds)
	.map(([name, adds]) => `| ${name} | ${kb(adds)} | **${kb(weight.frame + adds)}** |`)
	.join('\n')}

Styles of all kinds together: **${kb(weight.styles)}** kB. With first use: ${Object.entries(weight.later)
	.map(([name, adds]) => `${name} ${kb(adds)}`)
	.join(', ')} kB.

## What a builder and a diver wait for, in Chromium

| what | ms | beside it, ms |
| --- | --- | --- |
| an edit of a screen of fifty lines, until the Lookout shows it (wanted: 200) | ${round(inBrowser.lookoutMs, 0)} | ${round(inBrowser.saveMs, 0)}, saving it |
| a list on a phone, until it answers a press, on a processor slowed to a quarter (wanted: 1,500) | ${round(inBrowser.slowMs, 0)} | ${round(inBrowser.fastMs, 0)}, not slowed |

## The first rows of a grid on screen

In headless Chromium against the built server, from asking for the page until the cells of the first row stand there.

| rows | ms |
| --- | --- |
| 1,000,000 | ${round(grid.largeMs, 0)} |
| 1,000 | ${round(grid.smallMs, 0)} |
| ratio | **${round(grid.largeMs / grid.smallMs)}** (bound 1.5) |

Scrolled for four seconds, four rows with each frame: **${round(grid.frames.aSecond, 0)}** frames a second (60 wanted; Chromium draws without a graphics card here), ${round(grid.frames.lateOfHundred, 1)} % of them more than 25 ms after the one before.

## A formula over ${formula.rows.toLocaleString('en-GB')} rows

| formula | ours, ms | by hand, ms | ratio | bound |
| --- | --- | --- | --- | --- |
${formula.cases.map((each) => `| ${each.name} | ${round(each.ours, 0)} | ${round(each.byHand, 0)} | **${round(each.ours / each.byHand)}** | ${each.bound} |`).join('\n')}

## A page of 50 rows with three kept totals

\`COUNT(inspections)\`, a count with a condition, \`MAX(inspections.done)\`, against hand-written SQL that reads the same places, and, for the size of what is saved, counting the children with the index of their reference.

| children | ours, ms | by hand, ms | ratio | bound | counted, ms |
| --- | --- | --- | --- | --- | --- |
${totals.map((each) => `| ${each.name} | ${round(each.ours, 3)} | ${round(each.byHand, 3)} | **${round(each.ours / each.byHand)}** | 1.5 | ${round(each.counted, 2)} |`).join('\n')}

## An edit of a cell

After 10,000 edits, so that neither side is measured while it is being compiled. With its computed column, two kept totals, history and seal, committed at \`synchronous=FULL\`: ${round(edit.ours, 2)} ms; a transaction written by hand that writes the same rows: ${round(edit.byHand, 2)} ms; ratio **${round(edit.ours / edit.byHand)}** (bound 1.5).

## Routines that run

Steps inside, each with its run, its note, its row, history and seal: ${round(runs.batches, 0)} a second where many go on in one commit (wanted: 3,000 where by hand 5,000), ${round(runs.oneByOne, 0)} at one a commit (ratio **${round(runs.batches / runs.oneByOne, 1)}**, wanted: 4), ${round(runs.byHand, 0)} by hand at fifty a commit (ratio **${round(runs.batches / runs.byHand)}**). A thousand starts on a table make an edit ${round(runs.withStarts, 3)} ms where it is ${round(runs.without, 3)} without (wanted: at most 1 ms more). Finding fifty runs that are due: ${round(runs.due, 3)} ms, and ${round(runs.dueBeside, 3)} ms beside 100,000 that wait and 100,000 that were given up.

In the whole program, an edit while a routine works through 100,000 rows (${round(queue.worked)} s): ${round(queue.beside)} ms, and ${round(queue.alone)} ms alone (ratio **${round(queue.beside / queue.alone)}**, wanted: at most 3). When the first message has left, ${queue.jobsLeft} of 1,000 steps inside that were there before it are still to be done. The stand-in takes ${round(queue.mailsASecond, 0)} messages a second (wanted: 80).

## Bringing in a CSV of ${brought.rows.toLocaleString('en-GB')} rows, 8 columns

| | s |
| --- | --- |
| looking at the file, types inferred over all rows | ${round(brought.inspectMs / 1000)} |
| bringing it in, through threads, with keys, index and registration | ${round(brought.importMs / 1000)} |
| \`sqlite3\` shell, \`.import\` into a table of the same columns, with the same index | ${round(brought.shellMs / 1000)} |
| ratio of the second to the third | **${round(brought.importMs / brought.shellMs)}** (bound 2.5) |

Most memory of the whole program meanwhile: ${Math.round(brought.mostMegabytes)} MB (bound 400); before, with nothing to do: ${Math.round(brought.idleMegabytes)} MB.

## Looking at a workbook of ${workbook.rows.toLocaleString('en-GB')} rows, ${workbook.columns} columns

Dates, amounts, shares, times and spans among them; \`exceljs\` reads the same file by its streaming reader, and does nothing with the cells.

| | s |
| --- | --- |
| looking at it: types inferred over all rows | ${round(workbook.inspectMs / 1000, 1)} (bound 60) |
| \`exceljs\`, every cell read | ${round(workbook.libraryMs / 1000, 1)} |
| ratio | **${round(workbook.inspectMs / workbook.libraryMs)}** |
| a small CSV looked at meanwhile, the slowest | **${round(workbook.smallMost / 1000, 2)}** (bound 1) |

Most memory of the whole process meanwhile: ${Math.round(workbook.mostMegabytes)} MB (bound 800); before, with the file just written: ${Math.round(workbook.idleMegabytes)} MB.

## Edits of others while it comes in

${brought.edits} edits, one after the other, each acknowledged after its commit at \`synchronous=FULL\`: median ${round(brought.editMedian, 1)} ms, 99th percentile **${round(brought.editP99, 1)} ms** (bound 50), slowest ${round(brought.editMax, 1)} ms.

## Bringing ${merge.rows.toLocaleString('en-GB')} rows into a table of a million that is there, by key

${merge.added.toLocaleString('en-GB')} are new, ${merge.changed.toLocaleString('en-GB')} change a cell of text that is indexed; each goes through the door, with history and seal, after all were tried. All the while somebody edits another table as fast as answers come.

| | s |
| --- | --- |
${merge.seconds.map(({ doing, s }) => `| ${doing} | ${round(s, 1)} |`).join('\n')}

${merge.edits} edits: median ${round(merge.median, 1)} ms, 99th percentile **${round(merge.p99, 1)} ms** (wanted: 50), slowest ${round(merge.slowest, 0)} ms.
`
writeFileSync('measure/RESULTS.md', text)
console.log(text)
process.exit(0)
