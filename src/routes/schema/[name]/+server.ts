import { error, json } from '@sveltejs/kit'
import { z } from 'zod'
import { publishedBundleSchema } from '$lib/core/app/bundle.ts'
import { appSchema } from '$lib/core/app/document.ts'
import { workspaceSchema } from '$lib/core/workspace/document.ts'

const SCHEMAS: ReadonlyMap<string, z.ZodType> = new Map<string, z.ZodType>([
	['workspace.json', workspaceSchema],
	['app.json', appSchema],
	['bundle.json', publishedBundleSchema]
])

/** The published JSON Schema of the documents that builders write. */
export function GET({ params }) {
	const schema = SCHEMAS.get(params.name)
	if (!schema) error(404, 'There is no such schema. There are workspace.json, app.json and bundle.json.')
	return json(z.toJSONSchema(schema))
}
