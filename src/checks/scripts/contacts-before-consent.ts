import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { listAddresses } from '../../core/markup/addresses.js';
import { getSpan, atPart, atSpan, findRequestTag } from '../../core/measure/blame.js';
import { hasHost, leavesSite } from '../../core/measure/site.js';
import { tell } from '../../core/tell.js';

interface Data {
  host: string;
}

type Measured = { asked: string };

export default defineCheck({
  id: 'contacts-before-consent',
  subject: 'scripts',
  level: 'concern',
  title: 'A third party is contacted before the visitor agreed',
  decided:
    'A host of another site is asked for something before the visitor did anything, that is before the house’s `steps`. Only where the house sets `consent`.',
  standard: null,
  needs: ['traffic'],
  markup: false,
  judge(c): Fact<Data, Measured>[] {
    if (!c.house.consent) return [];
    return flatMap(c.renders, (render) => {
      const early = render.traffic.filter((one) => !one.acted && leavesSite(one, c.house.origin));
      const hosts = [...new Set(early.map(({ host }) => host))];
      return hosts.map((host) => {
        const request = early.find((one) => one.host === host)!;
        const named = listAddresses(c.markup, c.house.origin).find(
          ({ url }) => hasHost(url) && url.hostname === host,
        );
        const blame = named
          ? atPart(named.element, named.attribute.name, getSpan(named.attribute))
          : atSpan(findRequestTag(c.markup, request));
        const seen = makeSeen(render, { asked: request.address });
        return tell.seen(blame, { host }, seen, { group: host });
      });
    });
  },
  says: ({ host }) => ({
    message: `${host} is contacted before the visitor has agreed to anything.`,
    notice: 'It learns the visitor’s address, and that they read this page, unasked.',
    cure: 'Show a still picture with a button in its place, and load it only when that is pressed.',
  }),
  measures: ({ asked }) => asked,
  brief: ({ host }) => `${host} is contacted unasked`,
  samples: [{ host: 'tally.example' }],
  examples: {
    faulty: [
      {
        name: 'a map at once',
        code: '<iframe title="Map of beds" src="https://maps.fernmap.example/embed/glasshouse" style="border: 0; width: 100%; height: 240px"></iframe>',
        under: { consent: true },
      },
    ],
    sound: [
      {
        name: 'a map when it is asked for',
        code: '<div id="map" style="min-height: 240px"><button type="button">Show the map</button></div><script>document.querySelector("#map button").onclick = () => { document.querySelector("#map").innerHTML = `<iframe title="Map of beds" src="https://maps.fernmap.example/embed/glasshouse" style="border: 0; width: 100%; height: 240px"></iframe>` }</script>',
        under: { consent: true },
      },
      {
        name: 'a map where the house does not ask for it',
        code: '<iframe title="Map of beds" src="https://maps.fernmap.example/embed/glasshouse" style="border: 0; width: 100%; height: 240px"></iframe>',
      },
    ],
  },
});
