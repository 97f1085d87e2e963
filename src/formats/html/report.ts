import { formatMinute } from '../../core/words/time.js';
import type { Shot } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import type { RunDocument, SnippetReport } from '../../core/run.js';
import { clean, cleanLine } from '../clean.js';
import { listBlocks } from '../blocks.js';
import { nameWhole } from '../corrected.js';
import { hasWeights } from '../weights.js';
import {
  formatCounts,
  formatEngines,
  formatFits,
  formatHead,
  getMainReason,
  listEndNotes,
  listNotes,
  orderByWorst,
} from '../summary.js';
import { formatHtmlBlock } from './block.js';
import { formatHtmlContacts, type DrawWeights } from './contacts.js';
import { formatHtmlFrames } from './frames.js';
import { formatHtmlLoads } from './loads.js';
import { formatHtmlMedia } from './media.js';
import { formatPage } from './page.js';
import { formatShape } from './shapes.js';
import { formatHarm } from './harm.js';
import { formatSheet, type ShotBytes } from './sheet.js';
import { STYLE } from './style.js';
import { html, trusted, type Html } from './template.js';

/** The bytes of a shot, base64; null where they are not there. */
export type GetShot = (hash: string) => Promise<string | null>;

/**
 * The report as one HTML file that asks for nothing outside, piece by piece: the shots of one snippet
 * at a time are held.
 */
export async function* formatHtml(
  document: RunDocument,
  getShot: GetShot,
): AsyncGenerator<string, void, undefined> {
  const page = formatPage(
    `${document.verdict.toUpperCase()}: ${getTitle(document)}`,
    html`${formatTop(document)}
      <main>${document.snippets.length > 1 ? formatList(document) : null} ${trusted(CUT)}</main>
      ${formatFoot(document)}`,
  );
  const [before = '', after = ''] = page.split(CUT);
  yield before;
  const draw = await loadDrawing(document);
  for (const [i, snippet] of document.snippets.entries()) {
    const shots = await loadShots([snippet], getShot);
    yield formatSnippet(snippet, i, document, { shots, draw }).toString();
  }
  yield `${after}\n`;
}

/** What draws takes a while to load: it is loaded where there is something to draw. */
async function loadDrawing({ snippets }: RunDocument): Promise<DrawWeights> {
  return snippets.some(hasWeights) ? (await import('./weights.js')).drawWeights : () => null;
}

/** The heaviest first. */
const VERDICTS = ['hold', 'unsure', 'clear'] as const;

/** Where the snippets go into the page. */
const CUT = '<!-- snippets -->';

/** The shots of some snippets, as far as they are there. */
export function loadShots(
  snippets: readonly SnippetReport[],
  getShot: GetShot,
): Promise<ShotBytes> {
  const taken = flatMap(snippets, ({ renders }) =>
    flatMap(renders, ({ shot, harm }) => [shot, harm?.with, harm?.without]),
  );
  return loadShotBytes(taken, getShot);
}

/** The bytes of shots, as far as they are there. */
export async function loadShotBytes(
  taken: readonly (Shot | null | undefined)[],
  getShot: GetShot,
): Promise<ShotBytes> {
  const shots = new Map<string, string>();
  for (const shot of taken) {
    const bytes = shot && !shots.has(shot.hash) ? await getShot(shot.hash) : null;
    if (shot && bytes) shots.set(shot.hash, bytes);
  }
  return shots;
}

/** Contact sheets alone, for a picture of them. */
export function formatSheetPage(snippets: readonly SnippetReport[], shots: ShotBytes): string {
  const page = html`<!doctype html>
    <html lang="en">
      <head>
        <meta charset="utf-8" />
        <title>Contact sheet</title>
        <style>
          ${trusted(`${STYLE} main { max-width: none; padding: 20px 28px } section.snippet:first-child { border: 0; margin: 0; padding-top: 0 }`)}
        </style>
      </head>
      <body>
        <main>
          ${snippets.map(
            (snippet) =>
              html`<section class="snippet">
                ${formatTitle(snippet)} ${formatSheet(snippet, shots)} ${formatHarm(snippet, shots)}
                <p class="faint">${formatKey(snippet)}</p>
              </section>`,
          )}
        </main>
      </body>
    </html>`;
  return page.toString();
}

/** What the numbers on the pictures mean. */
function formatKey(snippet: SnippetReport): Html[] {
  return listBlocks(snippet).map(({ number, main: { id, level, where }, alike }) => {
    const last = alike.at(-1)?.cause;
    return html`<span class="${level}"
        >${formatShape(level)} ${last ? `${number} to ${last}` : number} ${id}</span
      >
      (line ${where.line}) &ensp; `;
  });
}

function getTitle({ snippets }: RunDocument): string {
  return snippets.length === 1 ? cleanLine(snippets[0]!.name) : `${snippets.length} snippets`;
}

function formatTop(document: RunDocument): Html {
  const of = (verdict: string) => document.snippets.filter((one) => one.verdict === verdict).length;
  const sums = VERDICTS.filter((verdict) => of(verdict) > 0).map(
    (verdict) => `${of(verdict)} ${verdict}`,
  );
  const day = formatMinute(document.renderedAt ?? document.startedAt);
  return html`<header class="top">
    <div>
      <h1>${getTitle(document)}</h1>
      <p class="says">${sums.join(', ')}. ${formatHead(document)}</p>
      <p class="faint">
        Inspected on ${day} UTC with Mivket ${document.tool.version}${formatIn(document)}.
      </p>
    </div>
    <p class="stamp ${document.verdict}">${document.verdict.toUpperCase()}</p>
  </header>`;
}

function formatIn({ engines }: RunDocument): string {
  return engines.length > 0 ? ` in ${formatEngines(engines)}` : ', from the markup alone';
}

function formatList(document: RunDocument): Html {
  const { snippets } = document;
  const rows = orderByWorst(snippets).map(
    (snippet) =>
      html`<tr role="row" class="of-${snippet.verdict}">
        <td role="cell">
          <a href="#s${snippets.indexOf(snippet) + 1}">${cleanLine(snippet.name)}</a>
        </td>
        <td role="cell" class="${getTone(snippet)}"><b>${snippet.verdict.toUpperCase()}</b></td>
        <td role="cell">${formatCounts(snippet).replace(/^, /, '') || 'nothing found'}</td>
        <td role="cell" class="reason">${cleanLine(getMainReason(snippet, document))}</td>
        <td role="cell" class="fits">${formatFits(snippet).replace(/^fits /, '')}</td>
      </tr>`,
  );
  const heads = ['Snippet', 'Verdict', 'Found', 'Why', 'Fits'];
  // On a phone a row is not laid out as one, and is one all the same.
  return html`${formatFilter(document)}
    <nav class="wide" aria-label="Snippets">
      <table role="table">
        <thead role="rowgroup">
          <tr role="row">
            ${heads.map((head) => html`<th role="columnheader">${head}</th>`)}
          </tr>
        </thead>
        <tbody role="rowgroup">
          ${rows}
        </tbody>
      </table>
    </nav>`;
}

/** Shows those of one verdict alone, without code: `STYLE` looks which is chosen. */
function formatFilter({ snippets }: RunDocument): Html | null {
  const there = VERDICTS.filter((verdict) => snippets.some((one) => one.verdict === verdict));
  if (there.length < 2) return null;
  const choose = (value: string) =>
    html`<label
      ><input type="radio" name="shown" id="show-${value}" ${value === 'all' ? 'checked' : ''} />
      ${value}</label
    >`;
  return html`<fieldset class="filter">
    <legend>Show</legend>
    ${['all', ...there].map(choose)}
  </fieldset>`;
}

function getTone({ verdict }: SnippetReport): string {
  return { hold: 'blocker', unsure: 'concern', clear: 'sound' }[verdict];
}

function formatTitle(snippet: SnippetReport): Html {
  const fits = formatFits(snippet) && ` · ${formatFits(snippet)}`;
  return html`<div class="title">
    <h2>${cleanLine(snippet.name)}</h2>
    <span class="stamp small ${snippet.verdict}">${snippet.verdict.toUpperCase()}</span>
    <span class="faint">${formatCounts(snippet).replace(/^, /, '') || 'nothing found'}${fits}</span>
  </div>`;
}

function formatSnippet(
  snippet: SnippetReport,
  index: number,
  document: RunDocument,
  { shots, draw }: { shots: ShotBytes; draw: DrawWeights },
): Html {
  const anchor = `s${index + 1}`;
  return html`<section
    class="snippet of-${snippet.verdict}"
    id="${anchor}"
    aria-label="${cleanLine(snippet.name)}"
  >
    ${formatTitle(snippet)} ${formatSheet(snippet, shots)} ${formatHarm(snippet, shots)}
    ${listBlocks(snippet).map((block) => formatHtmlBlock(block, anchor, snippet))}
    ${formatHtmlFrames(snippet)} ${formatHtmlMedia(snippet)} ${formatHtmlContacts(snippet, draw)}
    ${formatHtmlLoads(snippet)} ${formatWhole(snippet)}
    ${listNotes(snippet, document).map((line) => html`<p class="faint">${cleanLine(line)}</p>`)}
  </section>`;
}

/** The whole snippet with all cures, to be copied. */
function formatWhole(snippet: SnippetReport): Html | null {
  const { mended } = snippet;
  return mended === null
    ? null
    : html`<details class="whole">
        <summary>${nameWhole(snippet)}</summary>
        <pre tabindex="0"><code>${clean(mended)}</code></pre>
      </details>`;
}

function formatFoot(document: RunDocument): Html {
  const { engines } = document;
  const seen =
    engines.length > 0
      ? `Seen in ${formatEngines(engines)} alone: not in Firefox or Safari, not signed in, not after a click.`
      : 'Nothing was rendered: only the markup was read.';
  return html`<footer>
    ${listEndNotes(document).map((words) => html`<div>${cleanLine(words)}</div>`)}
    <div>${seen} On pictures a culprit is outlined, with the number of its finding.</div>
  </footer>`;
}
