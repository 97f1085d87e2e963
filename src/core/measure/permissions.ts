import { parseDictionary } from 'structured-headers';
import { flatMap, mapPresent } from '../lists.js';
import { getAttribute, getValue, type MarkupElement } from '../markup/markup.js';
import { parseAddress } from './site.js';

/** A feature that frames of other origins have only where `allow` gives it to them (Permissions Policy, HTML 4.8.5). */
export type Feature = string;

/** Features that a frame's document may have without being allowed: their default is for all origins. */
const FREE = new Set(
  'picture-in-picture ch-ua sync-script vertical-scroll unload gamepad storage-access'.split(' '),
);

/** Parameters of players and the like that ask for something when the page loads, by what they ask for. */
const ASKED: [parameter: RegExp, feature: Feature][] = [
  [/^auto_?(play|start)$/i, 'autoplay'],
  [/^(allow_?)?(fs|full_?screen)$/i, 'fullscreen'],
  [/^(gyro|gyroscope|motion|device_?motion|accelerometer|orientation)$/i, 'gyroscope'],
  [/^(vr|xr|webxr)$/i, 'xr-spatial-tracking'],
  [/^(camera|webcam|video_?input)$/i, 'camera'],
  [/^(mic|microphone|audio_?input)$/i, 'microphone'],
  [/^(geo|geolocation|locate|locate_?me|my_?location)$/i, 'geolocation'],
  [/^(payment|payments|pay)$/i, 'payment'],
  [/^(midi)$/i, 'midi'],
  [/^(screen_?share|display_?capture)$/i, 'display-capture'],
  [/^(clipboard|copy_?button)$/i, 'clipboard-write'],
];
const ON = /^(1|true|yes|on)$/i;

/** The features that a frame's address asks for, each with the parameter as written. */
export function listAsked(address: URL): { feature: Feature; parameter: string }[] {
  const hash = new URLSearchParams(address.hash.replace(/^#\??/, ''));
  return flatMap([...address.searchParams, ...hash], ([name, value]) => {
    const found = ASKED.find(([parameter]) => parameter.test(name));
    return found && ON.test(value) ? [{ feature: found[1], parameter: `${name}=${value}` }] : [];
  });
}

/** Whether a frame's attributes give its document a feature, where it is of another origin than the page. */
export function isAllowed(element: MarkupElement, feature: Feature): boolean {
  if (FREE.has(feature)) return true;
  const given = listAllowed(element);
  if (given.has(feature)) return given.get(feature) === true;
  const whole = feature === 'fullscreen' && getAttribute(element, 'allowfullscreen') !== null;
  return whole || (feature === 'payment' && getAttribute(element, 'allowpaymentrequest') !== null);
}

/** The features that `allow` names, and whether it gives them to anybody (Permissions Policy, 5.2: `feature 'none'` to nobody). */
export function listAllowed(element: MarkupElement): Map<Feature, boolean> {
  const parts = (getValue(element, 'allow') ?? '').split(';').map((part) => part.trim());
  return new Map(
    parts.filter(Boolean).map((part): [string, boolean] => {
      const [name = '', ...to] = part.split(/\s+/);
      return [name.toLowerCase(), !to.some((one) => /^'none'$/i.test(one))];
    }),
  );
}

/** A frame's address, where it is of another origin than the page: else it has what the page has. */
export function getForeignAddress(element: MarkupElement, origin: string): URL | null {
  const url = parseAddress((getValue(element, 'src') ?? '').trim(), origin);
  return url && /^https?:$/.test(url.protocol) && url.origin !== origin ? url : null;
}

/** The features that a page's own Permissions-Policy header forbids to frames of an origin (Permissions Policy, 5.1). */
export function listForbidden(
  headers: Readonly<Record<string, string>>,
  frame: URL,
  page: string,
): Feature[] {
  const given = Object.entries(headers).find(([name]) => /^permissions-policy$/i.test(name));
  try {
    const policy = given ? [...parseDictionary(given[1])] : [];
    return mapPresent(policy, ([feature, [allowed]]) =>
      permits(Array.isArray(allowed) ? allowed.map(([one]) => one) : [allowed], frame, page)
        ? null
        : feature,
    );
  } catch {
    // Browsers pass over a header that they cannot read.
    return [];
  }
}

function permits(allowed: readonly unknown[], frame: URL, page: string): boolean {
  return allowed.some((one) => {
    const text = String(one);
    if (text === '*') return true;
    if (text === 'self') return frame.origin === page;
    return parseAddress(text)?.origin === frame.origin;
  });
}
