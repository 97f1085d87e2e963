/** Letters whose widths differ much from family to family. */
const SAMPLE = 'mmMWLliI0O&1';
const BASES = ['monospace', 'serif', 'sans-serif'];

let known = new Map<string, boolean>();
let context: OffscreenCanvasRenderingContext2D | null = null;

/** Forgets what belongs to a page that was read before. */
export function beginFamilies(): void {
  known = new Map();
}

/** The family that a text asks for first, without quotes. */
export function getFirstFamily({ fontFamily }: CSSStyleDeclaration): string {
  const match = /^\s*(?:"([^"]*)"|'([^']*)'|([^,]*))/.exec(fontFamily);
  return (match?.[1] ?? match?.[2] ?? match?.[3] ?? '').trim();
}

/** Whether a family is there: loaded by the page, or installed here. */
export function hasFamily(family: string): boolean {
  let there = known.get(family);
  if (there === undefined) known.set(family, (there = isLoaded(family) ?? isInstalled(family)));
  return there;
}

/** Of what the page declares; null where it declares nothing of the kind. */
function isLoaded(family: string): boolean | null {
  const name = family.toLowerCase();
  const faces = [...globalThis.mivketNotebook.page.fonts].filter(
    (face) => face.family.replace(/^["']|["']$/g, '').toLowerCase() === name,
  );
  // What was not asked for has no letters that are used here.
  return faces.length > 0 ? faces.some(({ status }) => status !== 'error') : null;
}

/** It is where it makes text as wide as no other family does. */
function isInstalled(family: string): boolean {
  context ??= new OffscreenCanvas(1, 1).getContext('2d');
  if (!context) return true;
  const measure = (list: string) => {
    context!.font = `72px ${list}`;
    return context!.measureText(SAMPLE).width;
  };
  const quoted = `"${family.replace(/["\\]/g, '\\$&')}"`;
  return BASES.some((base) => measure(`${quoted}, ${base}`) !== measure(base));
}
