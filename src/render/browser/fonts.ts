import { copyFile, mkdir, readFile, readdir, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { unwrapWoff } from './woff.js';

const FAMILIES = ['arimo', 'tinos', 'cousine'];
const SUBSETS = ['latin', 'latin-ext', 'greek', 'cyrillic', 'vietnamese', 'hebrew'];
const STYLES = ['400-normal', '400-italic', '700-normal', '700-italic'];
const FALLBACK = ['DejaVuSans.ttf', 'DejaVuSans-Bold.ttf', 'DejaVuSansMono.ttf'];

/** Widths of these families agree with the usual ones, so text breaks as it does for visitors. */
const ALIASES: Record<string, string[]> = {
  Arimo: ['sans-serif', 'Arial', 'Helvetica', 'Helvetica Neue', 'Segoe UI', 'Roboto', 'Verdana'],
  Tinos: ['serif', 'Times New Roman', 'Times', 'Georgia'],
  Cousine: ['monospace', 'Courier New', 'Courier', 'Consolas', 'Menlo'],
};

/** Puts the fonts that came with the browser's package into `folder`. */
export async function installFonts(resolve: (id: string) => string, folder: string): Promise<void> {
  await mkdir(folder, { recursive: true });
  await Promise.all([
    ...FAMILIES.map((family) => installFamily(resolve, family, folder)),
    installFallback(resolve, folder),
  ]);
}

async function installFamily(resolve: (id: string) => string, family: string, folder: string) {
  const files = join(dirname(resolve(`@fontsource/${family}/package.json`)), 'files');
  const present = new Set(await readdir(files));
  const wanted = SUBSETS.flatMap((subset) => STYLES.map((style) => `${family}-${subset}-${style}`));
  for (const name of wanted.filter((name) => present.has(`${name}.woff`))) {
    const woff = await readFile(join(files, `${name}.woff`));
    await writeFile(join(folder, `${name}.ttf`), unwrapWoff(woff));
  }
}

async function installFallback(resolve: (id: string) => string, folder: string) {
  const files = join(dirname(resolve('dejavu-fonts-ttf/package.json')), 'ttf');
  await Promise.all(FALLBACK.map((name) => copyFile(join(files, name), join(folder, name))));
}

/**
 * A fonts file with absolute paths (a relative cache folder would land in the working folder) and
 * without hinting: the same pixels on every machine.
 */
export function getFontsConf(folder: string): string {
  const aliases = Object.entries(ALIASES).flatMap(([font, names]) =>
    names.map(
      (name) =>
        `<alias binding="same"><family>${name}</family><prefer><family>${font}</family></prefer></alias>`,
    ),
  );
  return `<?xml version="1.0"?>
<!DOCTYPE fontconfig SYSTEM "fonts.dtd">
<fontconfig>
  <dir>${join(folder, 'fonts')}</dir>
  <cachedir>${join(folder, 'fonts-cache')}</cachedir>
  ${aliases.join('\n  ')}
  <match target="pattern">${edit('family', 'append_last', '<string>Arimo</string>')}</match>
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
