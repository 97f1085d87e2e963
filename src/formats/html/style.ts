import { verdict } from '../../core/run.js';

/** What is not of the verdict that is chosen. */
const HIDDEN = verdict.options
  .map(
    (one) =>
      `body:has(#show-${one}:checked) :is(nav tr, section)[class*='of-']:not(.of-${one}) { display: none; }`,
  )
  .join('\n');

/** The look of the report and of the contact sheet: the sheet of an inspection. */
export const STYLE = `
:root { color-scheme: light dark; --paper: #faf8f4; --ink: #1d1b18; --faint: #6a645b; --line: #d8d2c6;
  --wash: #f1ede4; --blocker: #a33b20; --concern: #8a6100; --advice: #3d5a73; --sound: #3f6b3c; --halo: rgb(250 248 244 / .9); }
@media (prefers-color-scheme: dark) { :root.themed { --paper: #1f1d1a; --ink: #ece7dd; --faint: #a69e91; --line: #3d3932;
  --wash: #292621; --blocker: #e2836a; --concern: #d3a647; --advice: #93b3ce; --sound: #8fba8b; } }
* { box-sizing: border-box; }
body { margin: 0; background: var(--paper); color: var(--ink); font: 16px/1.55 system-ui, 'Helvetica Neue', Arial, sans-serif; }
main, header.top, footer { max-width: 76rem; margin: 0 auto; padding: 0 1.5rem; }
h1, h2, h3, .stamp { font-family: Georgia, 'Times New Roman', serif; font-weight: 600; line-height: 1.2; }
h1 { font-size: 2.1rem; margin: 0 0 .4rem; } h2 { font-size: 1.6rem; margin: 0; } h3 { font-size: 1.12rem; margin: 0; }
h2.slot, h3.slot { font: 600 .85rem/1.4 system-ui, Arial, sans-serif; margin: 0 0 .35rem; color: var(--faint); }
a { color: inherit; text-underline-offset: .15em; } a:focus-visible, summary:focus-visible, [tabindex]:focus-visible { outline: 2px solid var(--advice); outline-offset: 3px; }
code, pre { font-family: ui-monospace, 'DejaVu Sans Mono', Menlo, Consolas, monospace; font-size: .84rem; }
.faint { color: var(--faint); } .blocker { color: var(--blocker); } .concern { color: var(--concern); } .advice { color: var(--advice); } .sound { color: var(--sound); }
.shape { width: .72em; height: .72em; vertical-align: -.02em; }
header.top { display: flex; gap: 2rem; align-items: flex-start; justify-content: space-between; padding-top: 2.6rem; padding-bottom: 1.4rem; }
.stamp { flex: none; display: inline-block; margin: .2rem .6rem; padding: .12em .5em .08em; border: .14em double currentColor; border-radius: .18em; outline: 1px solid currentColor; outline-offset: .12em;
  font-size: 2rem; letter-spacing: .12em; transform: rotate(-4deg); }
.stamp.small { font-size: 1.05rem; transform: rotate(-3deg); margin: 0 .5rem; }
.stamp.hold { color: var(--blocker); } .stamp.unsure { color: var(--concern); } .stamp.clear { color: var(--sound); }
table { border-collapse: collapse; width: 100%; font-size: .94rem; } th { text-align: left; font-weight: 600; color: var(--faint); font-size: .82rem; }
th, td { padding: .38rem .9rem .38rem 0; border-bottom: 1px solid var(--line); vertical-align: baseline; }
.wide { overflow-x: auto; } .chart { max-width: 760px; margin: .8rem 0; } .chart svg { display: block; width: 100%; height: auto; }
section.snippet { border-top: 1px solid var(--ink); margin-top: 3rem; padding-top: 1.4rem; }
.title { display: flex; flex-wrap: wrap; gap: .4rem 1rem; align-items: center; margin-bottom: 1rem; }
.row { margin: 0 0 1.5rem; } dl + .row { margin-top: .9rem; } .shots { display: flex; gap: 18px; align-items: flex-start; }
figure { margin: 0; min-width: 0; } figcaption { font-size: .8rem; margin-bottom: .3rem; line-height: 1.35; }
.shot { position: relative; overflow: hidden; border: 1px solid var(--line); background: #fff; } .shot.marked { padding: 22px 3px 3px; background: var(--paper); } .field { position: relative; } .shot img { display: block; width: 100%; height: auto; }
.edge { position: absolute; top: 0; bottom: 0; border-left: 2px dashed #1d1b18; box-shadow: -1px 0 0 var(--halo), 1px 0 0 var(--halo); }
.mark { position: absolute; outline: 2px solid currentColor; box-shadow: 0 0 0 3px rgb(250 248 244 / .9); }
.mark.blocker, .tags .blocker { color: #a33b20; } .mark.concern, .tags .concern { color: #8a6100; } .mark.advice, .tags .advice { color: #3d5a73; }
.area { position: absolute; outline: 2px dashed #3d5a73; outline-offset: -2px; box-shadow: inset 0 0 0 4px rgb(250 248 244 / .75); }
.tags { position: absolute; display: flex; gap: 2px; padding-bottom: 4px; }
.tags b { min-width: 17px; padding: 0 4px; background: currentColor; font: 600 12px/17px system-ui, Arial, sans-serif; text-align: center; box-shadow: 0 0 0 1px rgb(250 248 244 / .9); } .tags i { font-style: normal; color: #fff; }
article { border-top: 1px solid var(--line); padding: 1.1rem 0 1.2rem; }
article header { display: flex; flex-wrap: wrap; gap: .3rem .8rem; align-items: baseline; }
.number.small { font-size: .75rem; } .measured { width: auto; font-size: .9rem; } .measured th, .measured td { padding: .15rem 1.2rem .15rem 0; } .measured tbody tr:last-child td { border: 0; } .reason { max-width: 34rem; } details.alike summary { cursor: pointer; margin-top: .6rem; } details.alike ul { list-style: none; margin: .4rem 0 0; padding: 0; font-size: .92rem; } details.alike li { margin: .2rem 0; }
.number { display: inline-block; min-width: 1.55em; padding: 0 .35em; text-align: center; font-weight: 600; font-size: .85rem; line-height: 1.55em; background: currentColor; } .number i { font-style: normal; color: var(--paper); }
.level { font-weight: 600; } .says { margin: .35rem 0 .6rem; max-width: 46rem; }
pre { margin: .2rem 0 .7rem; padding: .6rem .8rem; background: var(--wash); white-space: pre-wrap; overflow-wrap: anywhere; } pre .line { color: var(--faint); user-select: none; }
pre mark { background: none; color: inherit; text-decoration: underline 2px var(--concern); text-underline-offset: .3em; }
dl { display: grid; grid-template-columns: 7.5rem 1fr; gap: .25rem .8rem; margin: 0; font-size: .94rem; } dt { color: var(--faint); } dd { margin: 0; max-width: 46rem; min-width: 0; } dd pre { margin: 0; }
.measured caption { text-align: left; color: var(--faint); } details.whole { border-top: 1px solid var(--line); padding: .9rem 0; } details.whole summary { cursor: pointer; font-weight: 600; } details.whole pre { margin-top: .7rem; white-space: pre-wrap; }
ul.plain { list-style: none; margin: 0 0 .8rem; padding: 0; max-width: 46rem; } .beside { width: auto; min-width: 60%; margin: 0 0 1.6rem; } .beside tbody th { font-weight: 400; font-size: .94rem; }
.filter { border: 0; margin: 0 0 .6rem; padding: 0; display: flex; gap: 1.2rem; align-items: baseline; font-size: .94rem; } .filter legend { float: left; padding: 0; color: var(--faint); } .filter label { cursor: pointer; padding: .3rem 0; } .filter input { accent-color: var(--ink); margin: 0 .3rem 0 0; }
${HIDDEN}
nav ol { list-style: none; margin: 0; padding: 0; } footer { padding-top: 2rem; padding-bottom: 3rem; margin-top: 3rem; font-size: .88rem; color: var(--faint); }
footer > div { border-top: 1px solid var(--line); padding-top: 1rem; }
.missing { display: block; padding: 2rem 1rem; color: #6a645b; font-size: .85rem; }
@media (max-width: 46rem) { .chart { display: none; } .shots { flex-direction: column; } .shots figure { flex: none !important; width: 100%; } dl { grid-template-columns: 1fr; } dd { margin-bottom: .4rem; } header.top { flex-direction: column-reverse; gap: .6rem; }
  nav thead { position: absolute; clip-path: inset(50%); } nav tbody { display: block; } nav tr { display: grid; grid-template-columns: 1fr auto; column-gap: .8rem; padding: .5rem 0; border-bottom: 1px solid var(--line); }
  nav td { padding: 0; border: 0; min-width: 0; overflow-wrap: anywhere; } nav td:nth-child(n + 3) { grid-column: 1 / -1; } nav td:empty { display: none; } nav .fits::before { content: 'fits '; color: var(--faint); } }
@media print { :root { --paper: #fff; } body { font-size: 11pt; } section.snippet, article, figure { break-inside: avoid; } section.snippet { break-inside: auto; } .shot, .stamp, .mark, .number { print-color-adjust: exact; } }
`;
