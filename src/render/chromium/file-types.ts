import type { Protocol } from 'devtools-protocol';
import type { FileType } from '../../core/evidence.js';

/** The protocol's resource types; all others are others. */
const TYPES: Partial<Record<Protocol.Network.ResourceType, FileType>> = {
  Document: 'document',
  Stylesheet: 'style',
  Script: 'script',
  Image: 'picture',
  Font: 'font',
  Media: 'film',
  TextTrack: 'track',
  XHR: 'data',
  Fetch: 'data',
  WebSocket: 'socket',
  EventSource: 'stream',
  Ping: 'ping',
  CSPViolationReport: 'ping',
  Prefetch: 'prefetch',
  Manifest: 'manifest',
};

export function toFileType(type: Protocol.Network.ResourceType | undefined): FileType {
  return (type && TYPES[type]) ?? 'other';
}
