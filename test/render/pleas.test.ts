import { describe, expect, test } from '@jest/globals';
import { EventEmitter } from 'node:events';
import type { Session } from '../../src/render/chromium/connection.js';
import { followPleas } from '../../src/render/chromium/pleas.js';
import { askForReports } from '../../src/render/gate/reported.js';
import { Happenings } from '../../src/render/page/happenings.js';

function follow() {
  const events = new EventEmitter();
  const happened = new Happenings('https://www.seedlibrary.example/');
  const session = { on: events.on.bind(events), tell: () => undefined };
  followPleas(session as unknown as Session, () => happened);
  return {
    log: (source: string, text: string) =>
      events.emit('Log.entryAdded', {
        entry: {
          ...{ source, text },
          stackTrace: {
            callFrames: [{ url: 'https://a.example/x', lineNumber: 1, columnNumber: 2 }],
          },
        },
      }),
    report: (body: object, type = 'permissions-policy-violation') =>
      events.emit('Network.reportingApiReportAdded', { report: { type, body } }),
    list: () => happened.pleas.map(({ what, calls }) => [what, calls[0]?.url, calls[0]?.line]),
  };
}

describe('what visitors are asked for', () => {
  test('is told by what the browser says of a call without a click', () => {
    const { log, list } = follow();
    log('violation', 'Only request geolocation information in response to a user gesture.');
    log('violation', 'Only request notification permission in response to a user gesture.');
    log('violation', 'Avoid using document.write().');
    log('javascript', 'Only request geolocation information');
    expect(list()).toEqual([
      ['location', 'https://a.example/x', 1],
      ['notifications', 'https://a.example/x', 1],
    ]);
  });

  test('and by reports on a policy, but for those that were enforced, or come from nowhere', () => {
    const { report, list } = follow();
    const at = { sourceFile: 'https://a.example/', lineNumber: 3, columnNumber: 5 };
    report({ policyId: 'camera', disposition: 'report', ...at });
    report({ policyId: 'camera', disposition: 'enforce', ...at });
    report({ policyId: 'fullscreen', disposition: 'report', ...at });
    report({ policyId: 'midi', disposition: 'report' });
    report({ policyId: 'microphone', disposition: 'report', ...at }, 'deprecation');
    expect(list()).toEqual([['camera', 'https://a.example/', 2]]);
  });

  test('the page is served with that policy, beside its own', () => {
    const { 'permissions-policy-report-only': policy, ...others } = askForReports({
      'X-Own': '1',
      'Permissions-Policy-Report-Only': 'usb=()',
    });
    expect(others).toEqual({ 'X-Own': '1' });
    expect(policy).toMatch(/^usb=\(\), camera=\(\),.* clipboard-read=\(\)/);
    expect(Object.keys(askForReports({}))).toEqual(['permissions-policy-report-only']);
  });
});
