import type { Protocol } from 'devtools-protocol';
import type { Viewport } from '../../core/house/house.js';
import type { Session } from './connection.js';

type Identity = Protocol.Emulation.SetUserAgentOverrideRequest;
type Hints = Protocol.Emulation.UserAgentMetadata;

/** What a desktop's browser says of its system, by Node's name for it. */
const DESKTOPS: Record<string, string> = {
  darwin: 'Macintosh; Intel Mac OS X 10_15_7',
  win32: 'Windows NT 10.0; Win64; x64',
};
/** All phones say the same since Chromium sends a reduced user agent. */
const PHONE = 'Linux; Android 10; K';

/** A system as client hints name it, and as scripts are told. */
interface System {
  pattern: RegExp;
  hint: string;
  platform: string;
}

/** By what stands in a user agent; the last is for all others. */
const SYSTEMS: System[] = [
  { pattern: /Android/, hint: 'Android', platform: 'Linux armv81' },
  { pattern: /iPhone/, hint: 'iOS', platform: 'iPhone' },
  { pattern: /iPad/, hint: 'iOS', platform: 'iPad' },
  { pattern: /CrOS/, hint: 'Chrome OS', platform: 'Linux x86_64' },
  { pattern: /Windows/, hint: 'Windows', platform: 'Win32' },
  { pattern: /Mac OS X|Macintosh/, hint: 'macOS', platform: 'MacIntel' },
  { pattern: /^/, hint: 'Linux', platform: 'Linux x86_64' },
];

/**
 * The user agent of a visitor's Chromium of that version, in the reduced form that it sends
 * (User-Agent Reduction; the minor version is 0).
 * @param major the browser's own major version
 */
export function getUserAgent(major: number, phone: boolean): string {
  const system = phone ? PHONE : (DESKTOPS[process.platform] ?? 'X11; Linux x86_64');
  const mobile = phone ? ' Mobile' : '';
  return `Mozilla/5.0 (${system}) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/${major}.0.0.0${mobile} Safari/537.36`;
}

/**
 * What the page, its frames and its workers say of the browser at a viewport: a phone's browser with
 * touch, a desktop's without, what the viewport itself says before all.
 * @param version the browser's own, such as `147.0.7727.0`
 * @param language a BCP 47 tag
 */
export function getIdentity(viewport: Viewport, version: string, language: string): Identity {
  const major = Number.parseInt(version, 10);
  const userAgent = viewport.userAgent ?? getUserAgent(major, viewport.touch);
  const { hint, platform } = findSystem(userAgent);
  const hints = getHints(userAgent, hint, version);
  return {
    userAgent,
    platform,
    acceptLanguage: getAcceptLanguage(language),
    ...(hints && { userAgentMetadata: hints }),
  };
}

/** The language, and where it has a region the language without: `de-AT,de`. */
export function getAcceptLanguage(language: string): string {
  const [plain] = language.split('-');
  return plain === language ? language : `${language},${plain}`;
}

function findSystem(userAgent: string): System {
  return SYSTEMS.find(({ pattern }) => pattern.test(userAgent))!;
}

/** Has a target say that of itself. @param locale how it writes days and numbers: not every browser has texts of its own in that language */
export function introduce(session: Session, identity: Identity | null, locale: string): void {
  if (identity) session.tell('Emulation.setUserAgentOverride', identity);
  session.tell('Emulation.setLocaleOverride', { locale });
}

/** Client hints (User-Agent Client Hints, W3C) that agree with a user agent; a browser of another kind sends none. */
function getHints(userAgent: string, platform: string, version: string): Hints | null {
  const major = /Chrom(?:e|ium)\/(\d+)/.exec(userAgent)?.[1];
  if (major === undefined) return null;
  const full = version.startsWith(`${major}.`) ? version : `${major}.0.0.0`;
  const phone = platform === 'Android';
  return {
    brands: listBrands('8', major),
    fullVersionList: listBrands('8.0.0.0', full),
    platform,
    platformVersion: phone ? '15.0.0' : '',
    architecture: phone ? '' : 'x86',
    bitness: phone ? '' : '64',
    model: '',
    mobile: /Mobile/.test(userAgent),
    wow64: false,
  };
}

/** A made-up brand belongs to the list, so that nobody counts on its order. */
function listBrands(madeUp: string, chromium: string): Protocol.Emulation.UserAgentBrandVersion[] {
  return [
    { brand: 'Not.A/Brand', version: madeUp },
    { brand: 'Chromium', version: chromium },
  ];
}
