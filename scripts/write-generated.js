// Writes what is made from the sources: the JSON Schemas that ship and the page of findings.
// With --check it writes nothing and fails where one is out of date.
import { readFileSync, writeFileSync } from 'node:fs';
import * as z from 'zod';
import { CHECKS } from '../dist/src/checks/index.js';
import { houseSchema } from '../dist/src/core/house/schema.js';
import { comparisonSchema } from '../dist/src/core/compare/candidates.js';
import { runComparisonSchema } from '../dist/src/core/compare/runs.js';
import { ledgerSchema } from '../dist/src/core/ledger/entry.js';
import { heldSchema } from '../dist/src/core/ledger/held.js';
import { liveSchema } from '../dist/src/core/live/live.js';
import { lineSchema } from '../dist/src/core/lines.js';
import { mendSchema } from '../dist/src/core/mend/document.js';
import { runSchema } from '../dist/src/core/run.js';
import { describeProgram } from '../dist/src/cli/describe.js';
import { makeProgram } from '../dist/src/cli/program.js';
import { formatBash, formatFish, formatZsh } from '../dist/src/formats/completion.js';
import { formatFindingsPage } from '../dist/src/formats/explanation.js';
import { formatManual } from '../dist/src/formats/manual.js';

const toJson = (schema) => `${JSON.stringify(schema, null, 2)}\n`;
const silent = { write: () => undefined };
const about = describeProgram(makeProgram({ stdout: silent, stderr: silent }, { code: 0 }));
const files = {
  'completion/mivket.bash': formatBash(about),
  'completion/_mivket': formatZsh(about),
  'completion/mivket.fish': formatFish(about),
  'man/mivket.1': formatManual(about),
  'schema/house.schema.json': toJson(
    z.toJSONSchema(houseSchema, { io: 'input', unrepresentable: 'any' }),
  ),
  'schema/run.schema.json': toJson(z.toJSONSchema(runSchema)),
  'schema/lines.schema.json': toJson(z.toJSONSchema(lineSchema)),
  'schema/mend.schema.json': toJson(z.toJSONSchema(mendSchema)),
  'schema/compare.schema.json': toJson(
    z.toJSONSchema(z.union([comparisonSchema, runComparisonSchema])),
  ),
  'schema/ledger.schema.json': toJson(z.toJSONSchema(ledgerSchema)),
  'schema/live.schema.json': toJson(z.toJSONSchema(z.union([liveSchema, heldSchema]))),
  'docs/findings.md': formatFindingsPage(CHECKS),
};

for (const [name, text] of Object.entries(files)) {
  const file = new URL(`../${name}`, import.meta.url);
  if (!process.argv.includes('--check')) writeFileSync(file, text);
  else if (readFileSync(file, 'utf8') !== text) {
    console.error(`${name} is out of date: run \`npm run generate\`.`);
    process.exitCode = 1;
  }
}
