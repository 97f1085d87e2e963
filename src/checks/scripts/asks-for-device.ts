import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import type { Device } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { atCode } from '../../core/measure/code.js';
import { tell } from '../../core/tell.js';

interface Data {
  what: Device;
  /** Of the script or the frame’s document; null for what stands in the snippet. */
  address: string | null;
}

export default defineCheck({
  id: 'asks-for-device',
  subject: 'scripts',
  level: 'concern',
  title: 'The visitor is asked for something before having done anything',
  decided:
    'When the page has come to rest, or in its first minute, code of the snippet has asked for the visitor’s place, notifications, camera, microphone, MIDI devices, clipboard or screens, without a click. Not where the page’s policy lets nobody be asked.',
  standard: 'Permissions, 3; Geolocation, 5; Notifications API, 2.8; Permissions Policy, 9.1',
  needs: ['scripts'],
  markup: false,
  judge: (c): Fact<Data>[] =>
    flatMap(c.renders, (render) =>
      render.scripts.devices.map(({ what, from, address }) =>
        tell.seen(
          atCode(c.markup, { from, address }),
          { what, address: address === 'about:srcdoc' ? null : address },
          makeSeen(render, { asked: ASKED[what] }),
          { group: what },
        ),
      ),
    ),
  says: ({ what, address }) => ({
    message: `${address === null ? 'The snippet' : `The code ${address}`} asks for ${ASKED[what]} without the visitor having done anything.`,
    notice:
      'Visitors meet a question of the browser that they cannot place, and say no, for good; some browsers do not even ask.',
    cure: 'Ask when it is needed: at a click on a button that says what it is for.',
  }),
  brief: ({ what }) => `asks for ${ASKED[what]}`,
  samples: [
    { what: 'location', address: null },
    { what: 'notifications', address: 'https://tally.example/news.js' },
  ],
  examples: {
    faulty: [
      {
        name: 'the place, at once',
        code: '<p id="near">The nearest branch</p><script>navigator.geolocation.getCurrentPosition(() => {}, () => {})</script>',
      },
      {
        name: 'leave to send news, some seconds later',
        code: '<p>Sow in May.</p><script>setTimeout(() => Notification.requestPermission(), 5000)</script>',
      },
      {
        name: 'the camera',
        code: '<p>Show a leaf</p><script>navigator.mediaDevices.getUserMedia({ video: true }).catch(() => {})</script>',
      },
    ],
    sound: [
      {
        name: 'the place, at a click',
        code: '<button type="button" id="near">The nearest branch</button><script>document.querySelector("#near").addEventListener("click", () => navigator.geolocation.getCurrentPosition(() => {}, () => {}))</script>',
      },
      {
        name: 'only looked whether it was given',
        code: '<p>Sow in May.</p><script>navigator.permissions.query({ name: "geolocation" }).catch(() => {})</script>',
      },
    ],
  },
});

const ASKED: Record<Device, string> = {
  location: 'the visitor’s place',
  notifications: 'leave to send notifications',
  camera: 'the camera',
  microphone: 'the microphone',
  midi: 'the MIDI devices',
  clipboard: 'what is in the clipboard',
  screens: 'where the screens stand',
};
