import { REALM } from './doorman.js';

/** What a CONNECT is answered with, byte for byte (RFC 9110, 9.3.6). */
export const ESTABLISHED = 'HTTP/1.1 200 Connection Established\r\n\r\n';
export const REFUSED = 'HTTP/1.1 403 Forbidden\r\ncontent-length: 0\r\nconnection: close\r\n\r\n';
export const UNREACHED =
  'HTTP/1.1 502 Bad Gateway\r\ncontent-length: 0\r\nconnection: close\r\n\r\n';
export const UNKNOWN_USER = `HTTP/1.1 407 Proxy Authentication Required\r\nproxy-authenticate: ${REALM}\r\ncontent-length: 0\r\n\r\n`;
