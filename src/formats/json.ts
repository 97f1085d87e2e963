import { escapeJson } from './clean.js';
import type { RunDocument } from '../core/run.js';

/** The run document as JSON, with a line break at the end. */
export function formatJson(document: RunDocument): string {
  return `${escapeJson(JSON.stringify(document, null, 2))}\n`;
}
