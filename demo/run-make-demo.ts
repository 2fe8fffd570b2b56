import { makeDemo } from './make-demo.ts'

const [folder = 'var'] = process.argv.slice(2)
await makeDemo(folder, Date.now())
