import type { Device } from '../../core/evidence.js';
import type { Happenings } from '../page/happenings.js';
import { REPORTED } from '../gate/reported.js';
import type { Session } from './connection.js';
import { listCalls } from './traffic.js';

/** What the browser says of what is asked for without a click. */
const UNASKED: [RegExp, Device][] = [
  [/geolocation information/, 'location'],
  [/notification permission/, 'notifications'],
];

/** Below any time that such a thing takes, ms: all of them are told. */
const ANY = -1000;

/** Has told what a page or a frame asks the visitor for, by the browser itself: nothing of it is in the page. */
export function followPleas(session: Session, now: () => Happenings): void {
  session.on('Log.entryAdded', ({ entry: { source, text, stackTrace } }) => {
    const known = source === 'violation' && UNASKED.find(([words]) => words.test(text));
    if (known) now().plead({ what: known[1], calls: listCalls(stackTrace) });
  });
  session.on('Network.reportingApiReportAdded', ({ report: { type, body } }) => {
    const { policyId, disposition, sourceFile, lineNumber, columnNumber } = body as Report;
    const what = REPORTED[policyId ?? ''];
    if (type !== 'permissions-policy-violation' || disposition !== 'report' || !what) return;
    if (!sourceFile) return;
    const [line, column] = [(lineNumber ?? 1) - 1, (columnNumber ?? 1) - 1];
    now().plead({ what, calls: [{ url: sourceFile, line, column, functionName: '' }] });
  });
  session.tell('Log.enable');
  session.tell('Log.startViolationsReport', {
    config: [{ name: 'discouragedAPIUse', threshold: ANY }],
  });
  session.tell('Network.enableReportingApi', { enable: true });
}

/** Permissions Policy, 9.1. */
interface Report {
  policyId?: string;
  disposition?: string;
  sourceFile?: string;
  /** Both from 1. */
  lineNumber?: number;
  columnNumber?: number;
}
