import { describe, expect, test } from '@jest/globals';
import { makeGif } from '../../demo/stand-ins/gif.js';
import { nameContainer, tellContainer, tellsPictures } from '../../src/core/measure/container.js';
import { tellsMotion } from '../../src/core/measure/moving.js';
import { findLibrary } from '../../src/core/measure/packages.js';

const bytes = (text: string) => Uint8Array.from(text, (letter) => letter.charCodeAt(0));

describe('what a film is by its first bytes', () => {
  test.each([
    ['\0\0\0\x20ftypisom', 'video/mp4'],
    ['\0\0\0\x20ftypM4A ', 'audio/mp4'],
    ['\0\0\0\x14ftypqt  ', 'video/quicktime'],
    ['\x1a\x45\xdf\xa3\x01\0\0\x42\x82\x84webm', 'video/webm'],
    ['\x1a\x45\xdf\xa3\x01\0\0\x42\x82\x88matroska', 'video/x-matroska'],
    ['OggS\0\x02', 'application/ogg'],
    ['ID3\x04', 'audio/mpeg'],
    ['RIFF\0\0\0\0WAVEfmt ', 'audio/wav'],
    ['RIFF\0\0\0\0AVI LIST', 'video/x-msvideo'],
    ['RIFF\0\0\0\0WEBPVP8 ', null],
    ['<!doctype html>', null],
    ['', null],
  ])('%j', (begins, type) => {
    expect(tellContainer(bytes(begins))).toBe(type);
  });

  test('types of one kind have one name, whatever their parameters', () => {
    expect(nameContainer('video/mp4; codecs="avc1.42E01E"')).toBe('MP4');
    expect(nameContainer('audio/x-m4a')).toBe('MP4');
    expect(nameContainer('audio/mp3')).toBe(nameContainer('audio/mpeg'));
    expect([nameContainer('application/octet-stream'), nameContainer(null)]).toEqual([null, null]);
  });

  test('pictures are told of by the handler of a track, wherever it stands in the piece', () => {
    const handler = 'hdlr\0\0\0\0\0\0\0\0';
    expect(tellsPictures(bytes(`h hdlr ${handler}vide`))).toBe(true);
    expect(tellsPictures(bytes(`${handler}soun`))).toBe(false);
    expect(tellsPictures(bytes(`${handler}vid`))).toBe(false);
  });
});

test('a picture of several frames says so in its first bytes', () => {
  expect(tellsMotion(makeGif({ shades: [0, 1] }))).toBe(true);
  expect(tellsMotion(makeGif({ shades: [0] }))).toBe(false);
  expect(tellsMotion(bytes('\x89PNG\r\n\x1a\n\0\0\0\rIHDR....\0\0\0\x08acTL'))).toBe(true);
  expect(tellsMotion(bytes('\x89PNG\r\n\x1a\n\0\0\0\rIHDR....\0\0\0\x08IDAT'))).toBe(false);
  expect(tellsMotion(bytes('RIFF\0\0\0\0WEBPVP8X....ANIM'))).toBe(true);
  expect(tellsMotion(bytes('<p>ANIM acTL</p>'))).toBe(false);
});

test.each([
  ['npm/bedlist@2.1.0/bedlist.js', 'bedlist', '2.1.0'],
  ['npm/@seed/bedlist@2/dist/x.js', '@seed/bedlist', '2'],
  ['js/bedlist-3.6.0.min.js', 'bedlist', '3.6.0'],
  ['js/bedlist.1.12.js', 'bedlist', '1.12'],
  ['libs/bedlist/4.2.1/bedlist.min.js', 'bedlist', '4.2.1'],
  ['js/bedlist.min.js', null, null],
  ['js/2.1/plots.js', null, null],
  ['js/2024-05.js', null, null],
])('the library that %s names', (path, name, version) => {
  const found = findLibrary(new URL(`https://static.rootcellar.example/${path}`));
  expect([found?.name ?? null, found?.version ?? null]).toEqual([name, version]);
});
