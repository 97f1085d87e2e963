import type { Happenings } from '../page/happenings.js';
import { followPleas } from './pleas.js';
import type { Session } from './connection.js';
import { listCalls } from './traffic.js';

/**
 * Has one page's happenings told, those of the load that goes on.
 * @param frame the page's own
 */
export function followHappenings(session: Session, frame: string, now: () => Happenings): void {
  session.on('Inspector.targetCrashed', () => {
    now().crashed = true;
    session.drop();
  });
  session.on('Page.javascriptDialogOpening', ({ type, message }) => {
    now().openDialog(type, message);
    session.tell('Page.handleJavaScriptDialog', { accept: type === 'beforeunload' });
  });
  session.on('Page.downloadWillBegin', ({ url, suggestedFilename }) =>
    now().download(url, suggestedFilename),
  );
  session.on('Page.windowOpen', ({ url, userGesture }) => {
    if (userGesture) now().openByClick(url);
    else now().openWindow(url);
  });
  session.on('Page.frameScheduledNavigation', ({ frameId, reason, url }) => {
    if (frameId === frame) now().schedule(url, reason === 'metaTagRefresh');
  });
  session.on('Page.frameNavigated', ({ frame: { id, parentId, url } }) => {
    if (!parentId && id === frame) now().arrive(url);
  });
  session.on('Runtime.executionContextsCleared', () => now().clear());
  session.on('Page.documentOpened', ({ frame: { parentId } }) => {
    if (!parentId) now().replaced = true;
  });
}

/** Has told what a page, a frame or a worker logs as an error, or asks the visitor for. */
export function followConsole(session: Session, now: () => Happenings): void {
  followPleas(session, now);
  session.on('Runtime.consoleAPICalled', ({ type, args, stackTrace }) => {
    if (type !== 'error') return;
    const text = args.map((arg) => String(arg.value ?? arg.description ?? '')).join(' ');
    now().note(text);
    now().raise({ how: 'console', text: getHeadLine(text), calls: listCalls(stackTrace) });
  });
  session.on('Runtime.exceptionThrown', ({ exceptionDetails }) => {
    const { exception, text, stackTrace } = exceptionDetails;
    const whole = exception?.description ?? String(exception?.value ?? text);
    now().note(exception?.description ?? text);
    const { url = '', lineNumber: line, columnNumber: column } = exceptionDetails;
    // What cannot be read at all has no calls.
    const place = { url, line, column, functionName: '' };
    const known = listCalls(stackTrace);
    now().raise({
      how: text.includes('in promise') ? 'promise' : 'error',
      text: getHeadLine(whole),
      calls: known.length > 0 ? known : [place],
    });
  });
}

/** What stands before the calls. */
function getHeadLine(text: string): string {
  // Of a message of megabytes no more is gone through.
  const [line] = text.slice(0, 2 * LONGEST).split('\n') as [string];
  return line.replace(/^Uncaught (\(in promise\) )?/, '').slice(0, LONGEST);
}

const LONGEST = 200;
