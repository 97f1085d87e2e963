import { createHash } from 'node:crypto';

/** What a text (as UTF-8) or a file is known by: hex SHA-256. */
export function hashOf(content: string | Uint8Array): string {
  return createHash('sha256').update(content).digest('hex');
}
