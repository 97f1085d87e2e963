import { flatMap } from '../../core/lists.js';
import type { LiveDocument, LivePage, LiveStanding } from '../../core/live/live.js';
import { joinWords } from '../../core/words/list.js';
import { formatMinute } from '../../core/words/time.js';
import { cleanLine } from '../clean.js';
import { describeLive, describeLivePage, NOWHERE, sumLive } from '../live.js';
import { formatBeside, loadBeside } from './beside.js';
import { formatPlainList, formatToldPage } from './page.js';
import type { GetShot } from './report.js';
import type { ShotBytes } from './sheet.js';
import { html, type Html } from './template.js';

/** Where cleared snippets stand on pages, with pictures of both, as one HTML file that asks for nothing outside. */
export async function formatLiveHtml(document: LiveDocument, getShot: GetShot): Promise<string> {
  const { pages, missing, verdict, startedAt, tool } = document;
  const rows = flatMap(pages, ({ standings }) => flatMap(standings, ({ pictures }) => pictures));
  const shots = await loadBeside(rows, getShot);
  const title = pages.length === 1 ? cleanLine(pages[0]!.asked) : `${pages.length} pages`;
  return formatToldPage({
    title: `${verdict.toUpperCase()}: ${title}`,
    heading: title,
    about: html`<p class="says">${sumLive(document)}</p>
      ${missing.length > 0 ? html`<p>${cleanLine(joinWords(missing))}: ${NOWHERE}.</p>` : null}
      <p class="faint">
        Looked at on ${formatMinute(startedAt)} UTC with Mivket ${tool.version}.
      </p>`,
    stamp: html`<p class="stamp ${verdict}">${verdict.toUpperCase()}</p>`,
    main: pages.map((page) => formatLivePart(page, pages.length > 1, shots)),
    foot: 'Pictures show the code as it was cleared, put into a slot of the house today, and as it stands on the page. Areas that differ have a dashed outline, as far as both are equally wide; what was only pushed up or down is no difference.',
  });
}

/** @param named whether it says which page it is: one alone is the title */
function formatLivePart(page: LivePage, named: boolean, shots: ShotBytes): Html {
  const { head, why } = describeLivePage(page);
  return html`<section class="snippet" aria-label="${head}">
    ${named ? html`<div class="title"><h2>${head}</h2></div>` : null}
    ${why.map((line) => html`<p>${line}</p>`)}
    ${page.standings.map((one) => formatOneStanding(one, shots))}
  </section>`;
}

function formatOneStanding(standing: LiveStanding, shots: ShotBytes): Html {
  const { state, at, told } = describeLive(standing);
  const [first, ...copies] = ['in the slot', 'published', 'published, 2nd', 'published, 3rd'];
  return html`<dl>
      <dt>${cleanLine(standing.name)}</dt>
      <dd>
        <b>${state}</b>: ${at} ${told.length > 0 ? formatPlainList(told.map(cleanLine)) : null}
      </dd>
    </dl>
    ${standing.pictures.map((row) => formatBeside(row, [first!, ...copies], shots))}`;
}
