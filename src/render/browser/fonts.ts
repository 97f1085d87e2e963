import { createHash } from 'node:crypto';
import { copyFile, mkdir, readFile, writeFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { basename, dirname, join } from 'node:path';
import { flatMap } from '../../core/lists.js';
import { getCacheFolder } from '../machine/cache-folder.js';
import { getKept } from './cache.js';

/** A family as a package of the registry has it: TrueType files, one a style. */
interface Family {
  name: string;
  packageName: string;
  /** Paths in the package. */
  files: string[];
  /** The usual families it stands in for: widths agree, so text breaks as it does for visitors. */
  standsFor: string[];
}

const UPRIGHT = ['400Regular', '700Bold'];
const ALL_STYLES = [...UPRIGHT, '400Regular_Italic', '700Bold_Italic'];
const SANS = ['Arial', 'Helvetica', 'Helvetica Neue', 'Segoe UI', 'Roboto', 'Verdana'];

/** In the order in which letters are looked for that the wanted family does not have. */
const FAMILIES: Family[] = [
  fromSet('Arimo', ALL_STYLES, ['sans-serif', ...SANS]),
  fromSet('Tinos', ALL_STYLES, ['serif', 'Times New Roman', 'Times', 'Georgia']),
  fromSet('Cousine', ALL_STYLES, ['monospace', 'Courier New', 'Courier', 'Consolas', 'Menlo']),
  fromSet('Noto Sans Arabic', UPRIGHT),
  fromSet('Noto Sans Devanagari', UPRIGHT),
  fromSet('Noto Sans Thai', UPRIGHT),
  {
    name: 'DejaVu Sans',
    packageName: 'dejavu-fonts-ttf',
    files: ['ttf/DejaVuSans.ttf', 'ttf/DejaVuSans-Bold.ttf', 'ttf/DejaVuSansMono.ttf'],
    standsFor: [],
  },
  fromSet('Noto Color Emoji', ['400Regular'], ['emoji']),
];

/** Chinese, Japanese and Korean are large: a package of its own, for those who want it. */
const MORE = '@mivket/fonts-cjk/package.json';
const MORE_FAMILIES = ['SC', 'JP', 'KR'].map((region) => fromSet(`Noto Sans ${region}`, UPRIGHT));

/** A family of the set of open fonts whose packages are all laid out alike. */
function fromSet(name: string, styles: string[], standsFor: string[] = []): Family {
  const file = name.replaceAll(' ', '');
  return {
    name,
    packageName: `@expo-google-fonts/${name.toLowerCase().replaceAll(' ', '-')}`,
    files: styles.map((style) => `${style}/${file}_${style}.ttf`),
    standsFor,
  };
}

type Resolve = (id: string) => string;

/**
 * The folder of all fonts that came along, made once for each set of them, with a `fonts.conf`.
 * @param resolve finds the packages that came with the browser
 * @throws ToolError `browser-failed`
 */
export async function getFonts(resolve: Resolve): Promise<string> {
  const more = findMore();
  const families = [
    ...FAMILIES.map((family) => locate(family, resolve)),
    ...(more ? MORE_FAMILIES.map((family) => locate(family, more)) : []),
  ];
  const name = `fonts-${await hash(families)}`;
  return getKept(name, (making) => [
    writeFile(join(making, 'fonts.conf'), getFontsConf(join(getCacheFolder(), name), families)),
    copyAll(families, join(making, 'fonts')),
  ]);
}

/** What finds the fonts of the optional package; null where it is not installed. */
function findMore(): Resolve | null {
  try {
    return createRequire(createRequire(import.meta.url).resolve(MORE)).resolve;
  } catch {
    return null;
  }
}

type Located = Family & { folder: string };

function locate(family: Family, resolve: Resolve): Located {
  return { ...family, folder: dirname(resolve(`${family.packageName}/package.json`)) };
}

/** A name for the set: other versions or other families, another name. */
async function hash(families: readonly Located[]): Promise<string> {
  const abouts = families.map(({ folder }) => readFile(join(folder, 'package.json'), 'utf8'));
  const versions = (await Promise.all(abouts)).map(
    (text) => (JSON.parse(text) as { version: string }).version,
  );
  const conf = getFontsConf('', families);
  const made = createHash('sha256').update(JSON.stringify([conf, versions]));
  return made.digest('hex').slice(0, 12);
}

async function copyAll(families: readonly Located[], to: string): Promise<void> {
  await mkdir(to);
  const paths = flatMap(families, ({ folder, files }) => files.map((file) => join(folder, file)));
  await Promise.all(paths.map((path) => copyFile(path, join(to, basename(path)))));
}

/**
 * A fonts file with absolute paths (a relative cache folder would land in the working folder) and
 * without hinting: the same pixels on every machine.
 */
function getFontsConf(folder: string, families: readonly Family[]): string {
  const aliases = flatMap(families, ({ name, standsFor }) =>
    standsFor.map(
      (usual) =>
        `<alias binding="same"><family>${usual}</family><prefer><family>${name}</family></prefer></alias>`,
    ),
  );
  const order = families.map(({ name }) =>
    edit('family', 'append_last', `<string>${name}</string>`),
  );
  return `<?xml version="1.0"?>
<!DOCTYPE fontconfig SYSTEM "fonts.dtd">
<fontconfig>
  <dir>${join(folder, 'fonts')}</dir>
  <cachedir>${join(folder, 'fonts-cache')}</cachedir>
  ${aliases.join('\n  ')}
  <match target="pattern">
    ${order.join('\n    ')}
  </match>
  <match target="font">
    ${edit('hinting', 'assign', '<bool>false</bool>')}
    ${edit('autohint', 'assign', '<bool>false</bool>')}
    ${edit('antialias', 'assign', '<bool>true</bool>')}
    ${edit('rgba', 'assign', '<const>none</const>')}
  </match>
</fontconfig>
`;
}

function edit(name: string, mode: string, value: string): string {
  return `<edit name="${name}" mode="${mode}">${value}</edit>`;
}
