import { describe, expect, test } from '@jest/globals';
import { listPages } from '../../src/run/page-list.js';

const SITE = 'https://www.seedlibrary.example';
const FILES: Record<string, string> = {
  'pages.txt': `\uFEFF# of the beds\n${SITE}/beds\n\n  ${SITE}/desk \n${SITE}/beds\n`,
  'map.xml': `<urlset><url><loc>${SITE}/beds</loc></url><url><loc> ${SITE}/desk </loc></url></urlset>`,
  'maps.xml': `<sitemapindex><sitemap><loc>${SITE}/a.xml</loc></sitemap><sitemap><loc>${SITE}/b.xml.gz</loc></sitemap></sitemapindex>`,
  'empty.txt': '# none\n',
  'wrong.txt': 'seedlibrary.example/beds',
  'broken.xml': '<urlset><url',
  'far.xml': `<urlset><url><loc>ftp://files.example/a</loc></url></urlset>`,
  'round.txt': `${SITE}/round.xml`,
};
const SITES: Record<string, string> = {
  [`${SITE}/a.xml`]: `<urlset><url><loc>${SITE}/desk</loc></url></urlset>`,
  [`${SITE}/b.xml.gz`]: `<urlset><url><loc>${SITE}/beds</loc></url><url><loc>${SITE}/desk</loc></url></urlset>`,
  [`${SITE}/round.xml`]: `<sitemapindex><sitemap><loc>${SITE}/round.xml</loc></sitemap></sitemapindex>`,
};
const list = (...inputs: string[]) =>
  listPages(inputs, {
    read: (file) =>
      FILES[file] === undefined
        ? Promise.reject(new Error('no such'))
        : Promise.resolve(FILES[file]),
    fetch: (address) =>
      SITES[address] === undefined
        ? Promise.reject(new Error(`${address} is answered with 404.`))
        : Promise.resolve(SITES[address]),
  });

describe('the pages to look at', () => {
  test.each([
    [[`${SITE}/beds.html`], ['/beds.html']],
    [['pages.txt'], ['/beds', '/desk']],
    [
      ['map.xml', `${SITE}/beds`],
      ['/beds', '/desk'],
    ],
    [['maps.xml'], ['/desk', '/beds']],
    [[`${SITE}/a.xml`], ['/desk']],
    [[`${SITE}/?of=a.xml`], ['/?of=a.xml']],
  ])('of %j', async (inputs, paths) => {
    expect(await list(...inputs)).toEqual(paths.map((path) => SITE + path));
  });

  test.each([
    ['none.txt', 'none.txt is neither the address of a page nor a file with such: no such.'],
    ['empty.txt', 'empty.txt has no address of a page.'],
    ['wrong.txt', 'wrong.txt: “seedlibrary.example/beds” is no address of a page.'],
    ['far.xml', 'far.xml: “ftp://files.example/a” is no address of a page.'],
    ['broken.xml', 'broken.xml is no sitemap that can be read: '],
    [`${SITE}/c.xml`, `${SITE}/c.xml is answered with 404.`],
    ['round.txt', `${SITE}/round.xml stands in sitemaps that name each other.`],
  ])('are not known of %s', async (input, words) => {
    await expect(list(input)).rejects.toThrow(words);
  });
});
