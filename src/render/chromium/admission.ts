import type { Protocol } from 'devtools-protocol';
import { USER } from '../gate/doorman.js';
import type { Happenings } from '../page/happenings.js';
import type { Session } from './connection.js';

/** Whatever a target opens is held until it is followed. */
export const ALL_ATTACHED = { autoAttach: true, waitForDebuggerOnStart: true, flatten: true };

/** Decides what documents may come into a page: in its frames any, in itself only the planned one. */
export class Admission {
  /** The address that is let into the page next. */
  planned: string | null = null;
  readonly #session: Session;
  readonly #frame: string;
  readonly #happened: () => Happenings;

  constructor(session: Session, frame: string, happened: () => Happenings) {
    this.#session = session;
    this.#frame = frame;
    this.#happened = happened;
  }

  /** @param password what the gate asks to be shown */
  start(password: string): void {
    const session = this.#session;
    session.on('Fetch.requestPaused', (event) => this.#admit(event));
    session.on('Fetch.authRequired', (event) => answerChallenge(session, event, password));
    session.tell('Fetch.enable', {
      patterns: [{ resourceType: 'Document', requestStage: 'Request' }],
      handleAuthRequests: true,
    });
  }

  #admit({ requestId, frameId, request }: Protocol.Fetch.RequestPausedEvent): void {
    const ours = frameId !== this.#frame || request.url === this.planned;
    if (ours) {
      if (frameId === this.#frame) this.planned = null;
      return this.#session.tell('Fetch.continueRequest', { requestId });
    }
    this.#happened().leave(request.url);
    // An empty answer leaves the page as it stands.
    this.#session.tell('Fetch.fulfillRequest', { requestId, responseCode: 204 });
  }
}

/** The gate knows us; what a host asks to be shown nobody here has. Asked once a context: the browser keeps it. */
function answerChallenge(
  session: Session,
  { requestId, authChallenge }: Protocol.Fetch.AuthRequiredEvent,
  password: string,
): void {
  const ours = authChallenge.source === 'Proxy';
  const authChallengeResponse: Protocol.Fetch.AuthChallengeResponse = ours
    ? { response: 'ProvideCredentials', username: USER, password }
    : { response: 'CancelAuth' };
  session.tell('Fetch.continueWithAuth', { requestId, authChallengeResponse });
}
