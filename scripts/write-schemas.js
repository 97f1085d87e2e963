// Writes the JSON Schemas that ship, from the Zod schemas that are their single source.
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { z } from 'zod';
import { houseSchema } from '../dist/src/core/house/schema.js';
import { runSchema } from '../dist/src/core/run.js';

const folder = new URL('../schema/', import.meta.url);
const schemas = {
  'house.schema.json': z.toJSONSchema(houseSchema, { io: 'input', unrepresentable: 'any' }),
  'run.schema.json': z.toJSONSchema(runSchema),
};

mkdirSync(folder, { recursive: true });
for (const [name, schema] of Object.entries(schemas)) {
  const file = new URL(name, folder);
  const text = `${JSON.stringify(schema, null, 2)}\n`;
  const stale = process.argv.includes('--check') && readFileSync(file, 'utf8') !== text;
  if (stale) {
    console.error(`schema/${name} is out of date: run \`npm run build\`.`);
    process.exitCode = 1;
  } else if (!process.argv.includes('--check')) writeFileSync(file, text);
}
