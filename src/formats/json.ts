import { escapeJson } from './clean.js';

/** A document as JSON, with a line break at the end. */
export function formatJson(document: object): string {
  return `${escapeJson(JSON.stringify(document, null, 2))}\n`;
}
