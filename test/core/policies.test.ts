import { describe, expect, test } from '@jest/globals';
import { readMarkup } from '../../src/core/markup/markup.js';
import {
  addSources,
  admitStyle,
  allowsHandlers,
  findDirective,
  hashCode,
  parsePolicies,
} from '../../src/core/measure/csp.js';
import {
  getForeignAddress,
  isAllowed,
  listAsked,
  listForbidden,
} from '../../src/core/measure/permissions.js';

const policyOf = (text: string) => parsePolicies({ 'Content-Security-Policy': text })[0]!;
const frameOf = (attributes: string) => readMarkup(`<iframe ${attributes}></iframe>`).elements[0]!;

describe('a policy of content', () => {
  test('is read from its header alone, each list for itself, the first directive of a name', () => {
    const headers = {
      'content-security-policy': "img-src 'self'; IMG-SRC *, script-src 'none'",
      'x-frame-options': 'DENY',
    };
    expect(parsePolicies(headers).map((policy) => [...policy])).toEqual([
      [['img-src', ["'self'"]]],
      [['script-src', ["'none'"]]],
    ]);
    expect(parsePolicies({ 'content-security-policy-report-only': "img-src 'none'" })).toEqual([]);
  });

  test.each<[string, string, string | null]>([
    ["script-src 'self'", 'script-src-attr', 'script-src'],
    ["default-src 'self'", 'style-src-elem', 'default-src'],
    ["default-src 'self'", 'form-action', null],
    ["child-src 'self'; default-src *", 'frame-src', 'child-src'],
    ["img-src 'self'", 'script-src-elem', null],
  ])('%s decides %s by %s', (text, name, directive) => {
    expect(findDirective(policyOf(text), name)).toBe(directive);
  });

  test.each<[string, boolean]>([
    ["script-src 'self'", false],
    ["script-src 'unsafe-inline'", true],
    ["script-src 'unsafe-inline' 'nonce-a'", false],
    ["script-src 'unsafe-hashes' 'sha256-x'", true],
    ["script-src-attr 'none'; script-src 'unsafe-inline'", false],
    ["img-src 'none'", true],
  ])('%s lets code in attributes run: %s', (text, allowed) => {
    expect(allowsHandlers(policyOf(text))).toBe(allowed);
  });

  test('a directive is told as it has to read, without the word for nothing', () => {
    const policy = policyOf("img-src 'none'; script-src 'self'");
    expect(addSources(policy, 'img-src', ['https://a.example'])).toBe('img-src https://a.example');
    expect(addSources(policy, 'script-src', ["'self'", 'b.example'])).toBe(
      "script-src 'self' b.example",
    );
  });

  test('lets our own style in by its hash, only where it would not pass', () => {
    const admit = (value: string) =>
      admitStyle({ 'content-security-policy': value, 'x-a': 'b' }, 'p {}');
    const own = hashCode('p {}');
    expect(admit("style-src 'none'")['content-security-policy']).toBe(`style-src ${own}`);
    expect(admit("default-src 'self'")['content-security-policy']).toBe(
      `default-src 'self'; style-src 'self' ${own}`,
    );
    expect(admit("style-src 'unsafe-inline'")).toEqual({
      'content-security-policy': "style-src 'unsafe-inline'",
      'x-a': 'b',
    });
    expect(hashCode('')).toBe("'sha256-47DEQpj8HBSa+/TImW+5JCeuQeRkm5NMpJWZG3hSuFU='");
  });
});

describe('what frames are allowed', () => {
  test.each<[string, string, boolean]>([
    ['allow="autoplay; fullscreen"', 'autoplay', true],
    [`allow="autoplay 'none'"`, 'autoplay', false],
    ['allow="AUTOPLAY *"', 'autoplay', true],
    ['allowfullscreen', 'fullscreen', true],
    ['', 'picture-in-picture', true],
    ['allow="camera"', 'microphone', false],
  ])('%s gives %s: %s', (attributes, feature, allowed) => {
    expect(isAllowed(frameOf(attributes), feature)).toBe(allowed);
  });

  test('an address asks by its query or its fragment, not by what is switched off', () => {
    const ask = (text: string) =>
      listAsked(new URL(text, 'https://a.example')).map(({ feature }) => feature);
    expect(ask('/x?autoplay=1&gyro=true#?fs=1')).toEqual(['autoplay', 'gyroscope', 'fullscreen']);
    expect(ask('/x?autoplay=0&camera=&motion=no&playlist=1')).toEqual([]);
  });

  test('a frame of the page’s own origin has what the page has', () => {
    const origin = 'https://www.seedlibrary.example';
    const of = (src: string) => getForeignAddress(frameOf(`src="${src}"`), origin)?.href ?? null;
    expect(of('/own')).toBeNull();
    expect(of('about:blank')).toBeNull();
    expect(of('//maps.fernmap.example/x')).toBe('https://maps.fernmap.example/x');
  });

  test.each<[string, string[]]>([
    ['camera=(), fullscreen=*', ['camera']],
    ['camera=(self), autoplay=(self "https://maps.fernmap.example")', ['camera']],
    ['camera=("https://other.example")', ['camera']],
    ['this is no header (', []],
  ])('%s forbids %j', (value, features) => {
    const frame = new URL('https://maps.fernmap.example/x');
    const page = 'https://www.seedlibrary.example';
    expect(listForbidden({ 'Permissions-Policy': value }, frame, page)).toEqual(features);
  });
});
