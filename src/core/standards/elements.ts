/** Elements that never show anything themselves. */
export const UNSEEN: ReadonlySet<string> = new Set(
  'script style link meta noscript template base title'.split(' '),
);

/** Elements that have a start tag only (HTML, 13.1.2 Elements). */
export const VOID: ReadonlySet<string> = new Set(
  'area base br col embed hr img input link meta source track wbr'.split(' '),
);

/** Marks in a text, small by their nature (HTML, 4.5). */
export const MARKS: ReadonlySet<string> = new Set(
  'sup sub rt rp mfrac msup msub msubsup'.split(' '),
);

/** Elements that take an `alt` (HTML, 4.8.3, 4.8.14 and 4.10.5.1.19). */
export const WITH_ALT: ReadonlySet<string> = new Set(['img', 'area', 'input']);

/** Elements that show another document (HTML, 4.8 Embedded content). */
export const FRAMES: ReadonlySet<string> = new Set(['iframe', 'embed', 'object']);

/** Elements that play film or sound (HTML, 4.8.11 Media elements). */
export const MEDIA: ReadonlySet<string> = new Set(['video', 'audio']);

/** Elements whose content is not laid out by the page's styles, and fields, which behave alike (HTML, 15.4 and 15.5). */
export const REPLACED: ReadonlySet<string> = new Set(
  'img iframe video audio embed object canvas svg input textarea select'.split(' '),
);

/** Elements that the browser paints something for, whatever their style. */
export const PAINTED: ReadonlySet<string> = new Set([
  ...REPLACED,
  ...'button hr meter progress'.split(' '),
]);

/** Elements that are there to be looked at, and not only to hold something. */
export const MEANT_TO_SHOW: ReadonlySet<string> = new Set(
  [...PAINTED, 'picture', 'math', 'table'].filter((name) => name !== 'audio'),
);

/** An element of the markup or of a page, as far as these facts need it. */
export interface Described {
  name: string;
  /** null where it has no such attribute. */
  get(attribute: string): string | null;
}

/** The first role that is written, in lower case; '' for none. */
export function getRole(element: Described): string {
  return (element.get('role') ?? '').trim().split(/\s+/)[0]!.toLowerCase();
}

/** Whether it is a picture to assistive technology: img, image button, area with a link, a file as an object or in a drawing, or what says that it is one. */
export function isPicture(element: Described): boolean {
  const { name } = element;
  if (name === 'img') return true;
  if (name === 'area') return element.get('href') !== null;
  if (name === 'input' && element.get('type')?.toLowerCase() === 'image') return true;
  if (name === 'object' || name === 'embed') return showsPicture(element);
  // In HTML the parser makes an img of it.
  if (name === 'image') return Boolean(element.get('href') ?? element.get('xlink:href'));
  return /^(img|image)$/.test(getRole(element));
}

const PICTURE_FILE = /^[^?#]*\.(apng|avif|gif|jpe?g|png|svg|webp)([?#]|$)/i;

/** Whether what is drawn in a drawing is met as a part of it alone: it is a picture itself, or has a name (SVG Accessibility API Mappings 1.0). */
export function isWhole(drawing: Described, getName: () => string | null): boolean {
  if (drawing.name !== 'svg') return false;
  return /^(img|image)$/.test(getRole(drawing)) || Boolean(getName());
}

/** By its type, or where that is left out by its file's name. */
function showsPicture({ name, get }: Described): boolean {
  const type = get('type')?.trim();
  if (type) return /^image\//i.test(type);
  return PICTURE_FILE.test(get(name === 'object' ? 'data' : 'src') ?? '');
}

/** Whether its markup says that it is decoration only. */
export function isDecoration(element: Described): boolean {
  return /^(presentation|none)$/.test(getRole(element));
}

/** Whether it is a link or a button. */
export function isLinkOrButton(element: Described): boolean {
  if (element.name === 'a') return element.get('href') !== null;
  return element.name === 'button' || /^(button|link)$/.test(getRole(element));
}

/** What people work: `byContent` where what is in it names it (WAI-ARIA 1.2, 5.2.8.6). */
export interface Control {
  kind: 'link' | 'button' | 'field';
  byContent: boolean;
}

const NAMED_FIELDS = /^(checkbox|radio|switch|menuitemcheckbox|menuitemradio)$/;
const UNNAMED_FIELDS = /^(textbox|searchbox|combobox|slider|spinbutton|listbox)$/;
const BUTTON_TYPES = /^(button|submit|reset)$/i;

/** Which control it is, by its element and its role; null for all else, and for what nobody sees or pictures tell of. */
export function getControl(element: Described): Control | null {
  const { name } = element;
  const role = getRole(element);
  if (name === 'input') {
    const type = element.get('type') ?? '';
    if (/^(hidden|image)$/i.test(type)) return null;
    return { kind: BUTTON_TYPES.test(type) ? 'button' : 'field', byContent: false };
  }
  if (name === 'select' || name === 'textarea') return { kind: 'field', byContent: false };
  if (isLinkOrButton(element)) {
    const isLink = role === 'link' || (name === 'a' && role !== 'button');
    return { kind: isLink ? 'link' : 'button', byContent: true };
  }
  if (NAMED_FIELDS.test(role)) return { kind: 'field', byContent: true };
  return UNNAMED_FIELDS.test(role) ? { kind: 'field', byContent: false } : null;
}

const PLAYER_ADDRESS = /(^|[/.?&=_-])(player|video|watch|autoplay)([/.?&=_-]|$)/i;

/** Whether a frame asks for what players need; maps and forms fill the screen as well. */
export function asksToPlay(element: Described): boolean {
  const allowed = element.get('allow') ?? '';
  return /(^|;)\s*(autoplay|encrypted-media|picture-in-picture)\b/.test(allowed);
}

/** Whether a frame may be a player, so that its shape is better kept: many ask for no more than the whole screen. */
export function mayPlay(element: Described): boolean {
  return element.get('allowfullscreen') !== null || isPlayer(element);
}

/** Whether a frame is a player: by what it asks for, or by what its address says it is. */
export function isPlayer(element: Described): boolean {
  return (
    asksToPlay(element) || PLAYER_ADDRESS.test(element.get('src') ?? element.get('data') ?? '')
  );
}
