import { expect, test } from '@jest/globals';
import { EventEmitter } from 'node:events';
import { SoundLog } from '../../src/render/chromium/sound.js';
import type { Session } from '../../src/render/chromium/connection.js';

const FILM = 'https://media.loam.example/talk.mp4';
const INLINE = `data:video/mp4;base64,${'A'.repeat(2000)}`;
/** As the browser names it. */
const SHORTENED = `${INLINE.slice(0, 997)}...`;

function follow(log: SoundLog) {
  const events = new EventEmitter();
  log.follow({ on: events.on.bind(events), tell: () => undefined } as unknown as Session);
  return {
    tracks: (playerId: string, audio: string) =>
      events.emit('Media.playerPropertiesChanged', {
        playerId,
        properties: [
          { name: 'kVideoTracks', value: '[{}]' },
          { name: 'kAudioTracks', value: audio },
        ],
      }),
    load: (playerId: string, url: string) =>
      events.emit('Media.playerEventsAdded', {
        playerId,
        events: [{ timestamp: 1, value: JSON.stringify({ event: 'kLoad', url }) }],
      }),
  };
}

test.each([
  ['before its tracks', true],
  ['after its tracks', false],
])('a film is known whose address is told %s', async (_, first) => {
  const log = new SoundLog();
  const { tracks, load } = follow(log);
  const known = log.learn([FILM, INLINE], 30_000);
  if (first) load('a', FILM);
  tracks('a', '[]');
  if (!first) load('a', FILM);
  expect([log.get(FILM), log.get(INLINE)]).toEqual([false, null]);
  tracks('b', '[{"codec":"aac"}]');
  load('b', SHORTENED);
  await known;
  expect(log.get(INLINE)).toBe(true);
  // Another that begins alike is another file as long as it is told apart.
  expect(log.get(INLINE.slice(0, 900))).toBeNull();
});
