// JSON Schemas of the file formats, made from the schemas the program checks with: docs/schemas/*.json.
import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { build } from 'esbuild';
import { root } from './setup.mjs';

const out = path.join(root, '.tmp/schemas.mjs');
await build({
  stdin: { contents: "export { SCHEMAS } from '@nesting/contract';", resolveDir: root },
  outfile: out,
  bundle: true,
  platform: 'node',
  format: 'esm',
  logLevel: 'warning',
});
const { SCHEMAS } = await import(out);
mkdirSync(path.join(root, 'docs/schemas'), { recursive: true });
for (const [name, schema] of Object.entries(SCHEMAS))
  writeFileSync(path.join(root, `docs/schemas/${name}.schema.json`), `${JSON.stringify(schema(), null, 2)}\n`);
