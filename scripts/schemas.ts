/** Writes the JSON Schemas of what the application writes to where they are served from. */
import { mkdirSync, writeFileSync } from 'node:fs';
import { published } from '@crow-ladder/contract/published';

const folder = new URL('../packages/web/public/schema/', import.meta.url);
mkdirSync(folder, { recursive: true });
for (const [name, schema] of Object.entries(published()))
  writeFileSync(new URL(`${name}.json`, folder), `${JSON.stringify(schema, null, 2)}\n`);
