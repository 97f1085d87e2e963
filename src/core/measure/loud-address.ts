import { getFrameSource } from '../markup/embeds.js';
import type { MarkupAttribute, MarkupElement } from '../markup/markup.js';
import type { House } from '../house/house.js';
import { matchesHost, parseAddress } from './site.js';

/** A frame's address that asks for autoplay, and for nothing that mutes. */
export interface LoudAddress {
  source: MarkupAttribute;
  host: string;
  /** The player's own mute parameter, where the house knows it: `quiet=1`. */
  mute: string | null;
  /** The parameter that asks for autoplay, as written: `autoplay=1`. */
  asked: string;
}

const AUTOPLAY = /^auto_?(play|start)$/i;
const ON = /^(|1|true|yes|on)$/i;
/** Parameters by which players are muted, where the house says nothing of the player. */
const MUTES: [RegExp, RegExp][] = [
  [/^(mute|muted|silent|quiet)$/i, /^(|1|true|yes|on)$/i],
  [/^(sound|audio|volume|unmuted?)$/i, /^(0|0\.0+|false|no|off)$/i],
];

/** How a frame's address asks for a film with its sound on; null where it does not. */
export function findLoudAddress(element: MarkupElement, house: House): LoudAddress | null {
  const source = getFrameSource(element);
  const url = source && parseAddress(source.value.trim(), house.origin);
  if (!source || !url) return null;
  const parameters = [...url.searchParams, ...new URLSearchParams(url.hash.replace(/^#\??/, ''))];
  const asked = parameters.find(([name, value]) => AUTOPLAY.test(name) && ON.test(value));
  const own = getOwnMute(house, url.hostname);
  if (!asked || isMuted(parameters, own)) return null;
  const written = own && Object.entries(own).map(([name, value]) => `${name}=${String(value)}`);
  const mute = written && written.join('&');
  return { source, host: url.hostname, mute, asked: asked.join('=') };
}

type Mute = House['players'][string]['mute'];

function getOwnMute(house: House, host: string): Mute | null {
  const player = Object.entries(house.players).find(([pattern]) => matchesHost(pattern, host));
  return player?.[1].mute ?? null;
}

/** With the house's word on the player, that parameter alone counts. */
function isMuted(parameters: readonly [string, string][], own: Mute | null): boolean {
  if (own) {
    return Object.entries(own).every(([name, value]) =>
      parameters.some(([given, text]) => given === name && text === String(value)),
    );
  }
  return parameters.some(([name, value]) =>
    MUTES.some(([names, values]) => names.test(name) && values.test(value)),
  );
}
