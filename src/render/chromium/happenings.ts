import type { Happenings } from '../page/happenings.js';
import type { Session } from './connection.js';

/**
 * Has one page's happenings told, those of the load that goes on.
 * @param frame the page's own
 */
export function followHappenings(session: Session, frame: string, now: () => Happenings): void {
  session.on('Page.javascriptDialogOpening', ({ type, message }) => {
    now().openDialog(type, message);
    session.tell('Page.handleJavaScriptDialog', { accept: type === 'beforeunload' });
  });
  session.on('Page.windowOpen', ({ url, userGesture }) => {
    if (!userGesture) now().openWindow(url);
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

/** Has the errors told that a page, a frame or a worker logs. */
export function followConsole(session: Session, now: () => Happenings): void {
  session.on('Runtime.consoleAPICalled', ({ type, args }) => {
    if (type === 'error')
      now().note(args.map((arg) => String(arg.value ?? arg.description ?? '')).join(' '));
  });
  session.on('Runtime.exceptionThrown', ({ exceptionDetails }) => {
    now().note(exceptionDetails.exception?.description ?? exceptionDetails.text);
  });
}
