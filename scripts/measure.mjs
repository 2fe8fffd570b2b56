import { build, buildThreads, installPackages, run } from './ready.mjs'

installPackages()
build()
buildThreads()
process.exit(run(process.execPath, ['--max-old-space-size=6000', 'build/threads/measure.js', ...process.argv.slice(2)]))
