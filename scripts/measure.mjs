import { build, buildThreads, installPackages, run } from './ready.mjs'

installPackages()
build()
buildThreads()
const status = run(process.execPath, ['--max-old-space-size=6000', 'build/threads/measure.js'])
run('npx', ['--no-install', 'prettier', '--write', 'measure/RESULTS.md'])
process.exit(status)
