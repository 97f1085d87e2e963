import { decodePart, getSite } from './site.js';

/** What of an address is not for everybody. */
export interface Secret {
  kind: 'login' | 'parameter' | 'token' | 'preview';
  /** The name of the parameter, of the person, or of the part of the host. */
  name: string;
}

/** Parameters that hold secrets, and ones that may. */
const SURE =
  /^(access|auth|api|id|refresh|session|security|secret|bearer|user|csrf|sas|x-amz-security)?[-_]?(token|secret|password|passwd|pwd|jwt)$|^(api|access|private|secret|client)[-_]?(key|secret)$|^(client[-_]?secret|x-(amz|goog)-(signature|credential)|sig|signature|hmac|hash-?signature)$/i;
const MAYBE = /^(key|auth|code|credentials?)$/i;
/** RFC 7519, in its compact form. */
const JWT = /\beyJ[\w-]{8,}\.eyJ[\w-]{8,}\.[\w-]{8,}/;
/** Parts of a host that is not for visitors. */
const PREVIEW =
  /^(.+-)?(staging|stage|stg|preview|previews|preprod|pre-prod|uat|qa|dev|test)(-.+|\d+)?$/i;
const [SHORT, LONG] = [10, 20];

/** The secret in an address; null where there is none to be seen. */
export function findSecret(url: URL): Secret | null {
  if (!/^(https?|wss?):$/.test(url.protocol)) return null;
  if (url.password !== '') return { kind: 'login', name: decodePart(url.username) };
  const fragment = new URLSearchParams(url.hash.slice(1));
  for (const [name, value] of [...url.searchParams, ...fragment])
    if (isSecret(name, value)) return { kind: 'parameter', name };
  if (JWT.test(url.href)) return { kind: 'token', name: 'token' };
  const { hostname } = url;
  const below = hostname.slice(0, -getSite(hostname).length).split('.').filter(Boolean);
  const preview = below.find((one) => PREVIEW.test(one));
  return preview ? { kind: 'preview', name: preview } : null;
}

function isSecret(name: string, value: string): boolean {
  if (SURE.test(name)) return value.length >= SHORT && isMixed(value);
  return MAYBE.test(name) && value.length >= LONG && isMixed(value);
}

/** No word, and nothing that is still to be filled in. */
function isMixed(value: string): boolean {
  return /^[\w.~+/=:%-]+$/.test(value) && /\d/.test(value) && /[a-z]/i.test(value);
}
