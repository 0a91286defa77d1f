// Writes src/lib/api/types.gen.ts from the published api schema.
// With --check it writes nothing and fails when the file is stale.
import { readFileSync, writeFileSync } from 'node:fs';
import { compile } from 'json-schema-to-typescript';

const schema = JSON.parse(
	readFileSync(new URL('../../docs/schema/api.schema.json', import.meta.url), 'utf8')
);
const target = new URL('../src/lib/api/types.gen.ts', import.meta.url);
// The root is written out in place of its $ref, and $id goes: refs stay inside the file.
const root = { ...schema.$defs.API, $defs: schema.$defs };
const text = await compile(root, 'API', {
	bannerComment:
		'/* Generated from docs/schema/api.schema.json by `make generate`; do not edit. */',
	additionalProperties: false,
	style: { useTabs: true, singleQuote: true, printWidth: 100 },
	maxItems: -1
});
if (process.argv.includes('--check')) {
	if (readFileSync(target, 'utf8') !== text) {
		console.error('src/lib/api/types.gen.ts is stale: run make generate');
		process.exit(1);
	}
} else {
	writeFileSync(target, text);
}
