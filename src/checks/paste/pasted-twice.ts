import { atTag } from '../../core/measure/blame.js';
import { defineCheck, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { getAttribute, getValue, type MarkupElement } from '../../core/markup/markup.js';
import { listSources } from '../../core/markup/embeds.js';
import { parseAddress } from '../../core/measure/site.js';
import { tell } from '../../core/tell.js';

interface Data {
  name: string;
  address: string;
  line: number;
}

export default defineCheck({
  id: 'pasted-twice',
  subject: 'paste',
  level: 'concern',
  title: 'The same thing was pasted twice',
  decided:
    'Two frames or players of the snippet are the same element with the same address. Not what differs in its address; of scripts `script-loaded-twice` tells.',
  standard: null,
  needs: [],
  markup: true,
  judge(c): Fact<Data>[] {
    const first = new Map<string, MarkupElement>();
    return flatMap(c.markup.elements, (element): Fact<Data>[] => {
      const source = listSources(element)[0];
      const address = source && parseAddress(source.value.trim(), c.house.origin)?.href;
      if (!source || !address || element.name === 'script') return [];
      const key = `${element.name} ${address} ${getValue(element, 'type') ?? ''}`;
      const before = first.get(key);
      if (!before) {
        first.set(key, element);
        return [];
      }
      const where = getAttribute(element, source.name) ?? source;
      const { line } = c.markup.place({ offset: before.offset, endOffset: before.tagEnd });
      return [
        tell.markup(
          atTag(element, where),
          { name: element.name, address, line },
          { group: 'twice' },
        ),
      ];
    });
  },
  says: ({ name, address, line }) => ({
    message: `This <${name}> with ${address} stands here for the second time: the first is in line ${line}.`,
    notice: 'The same shows twice, or is loaded and counted twice.',
    cure: 'Take one of the two out.',
  }),
  brief: ({ name }) => `the same <${name}> twice`,
  samples: [{ name: 'iframe', address: 'https://maps.fernmap.example/embed/x', line: 1 }],
  examples: {
    faulty: [
      {
        name: 'a map',
        code: '<iframe title="Map" src="https://maps.fernmap.example/embed/x" style="border: 0; width: 100%; height: 240px"></iframe>\n<iframe title="Map" src="https://maps.fernmap.example/embed/x" style="border: 0; width: 100%; height: 240px"></iframe>',
      },
    ],
    sound: [
      {
        name: 'two maps',
        code: '<iframe title="Glasshouse" src="https://maps.fernmap.example/embed/x" style="border: 0; width: 100%; height: 240px"></iframe>\n<iframe title="Desk" src="https://maps.fernmap.example/embed/y" style="border: 0; width: 100%; height: 240px"></iframe>',
      },
      {
        name: 'one picture in two places',
        code: '<p><img src="https://static.rootcellar.example/beans.png" alt="Beans" width="40"> May</p><p><img src="https://static.rootcellar.example/beans.png" alt="Beans again" width="40"> June</p>',
      },
    ],
  },
});
