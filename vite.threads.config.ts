import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vite'

/**
 * Builds what runs outside Kit: the writer and reader threads, and the commands.
 * Kit does not bundle workers into its server build, so they are made here.
 */
export default defineConfig({
	resolve: { alias: { $lib: fileURLToPath(new URL('./src/lib', import.meta.url)) } },
	publicDir: false,
	build: {
		ssr: true,
		outDir: 'build/threads',
		emptyOutDir: true,
		target: 'node20',
		rollupOptions: {
			input: {
				writer: 'src/lib/server/threads/writer.ts',
				reader: 'src/lib/server/threads/reader.ts',
				importer: 'src/lib/server/threads/importer.ts',
				'make-demo': 'demo/run-make-demo.ts',
				'check-values': 'tests/check-values/run.ts',
				backup: 'src/lib/server/commands/backup.ts',
				restore: 'src/lib/server/commands/restore.ts',
				verify: 'src/lib/server/commands/verify.ts',
				'new-key': 'src/lib/server/commands/new-key.ts',
				'first-start': 'src/lib/server/commands/first-start.ts',
				measure: 'measure/measure.ts',
				'measure-workbook': 'measure/workbook.ts',
				'queue-trial': 'tests/support/queue-trial.ts'
			},
			output: { entryFileNames: '[name].js', chunkFileNames: 'shared/[name]-[hash].js' }
		}
	}
})
