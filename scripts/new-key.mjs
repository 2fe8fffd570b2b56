import { buildThreads, installPackages, run } from './ready.mjs'

installPackages()
buildThreads()
process.exit(run(process.execPath, ['build/threads/new-key.js', ...process.argv.slice(2)]))
