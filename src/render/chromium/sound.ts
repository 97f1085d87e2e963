import type { Protocol } from 'devtools-protocol';
import { within } from '../bounds/limit.js';
import type { Session } from './connection.js';

interface Player {
  address: string | null;
  audio: string | null;
  video: string | null;
}

/** Which media files have a sound track, as the browser's own demuxer tells, played or not. */
export class SoundLog {
  #players = new Map<string, Player>();
  #known = new Map<string, boolean>();
  #waiting: (() => void)[] = [];

  /** Follows one session; call it for every frame that is attached. */
  follow(session: Session): void {
    session.on('Media.playerPropertiesChanged', ({ playerId, properties }) => {
      const of = (name: string) =>
        properties.find((property) => property.name === name)?.value ?? null;
      this.#learn(playerId, { audio: of('kAudioTracks'), video: of('kVideoTracks') });
    });
    session.on('Media.playerEventsAdded', ({ playerId, events }) => {
      for (const event of events) {
        const address = getLoadAddress(event);
        if (address) this.#learn(playerId, { address });
      }
    });
    session.tell('Media.enable');
  }

  /** Whether the file has a sound track; null where nothing was told. */
  get(address: string): boolean | null {
    return this.#known.get(shorten(address)) ?? null;
  }

  /** Waits until it is known of all these files, `ms` at most. */
  async learn(addresses: readonly string[], ms: number): Promise<void> {
    const known = async () => {
      while (addresses.some((address) => this.get(address) === null)) {
        await new Promise<void>((resolve) => this.#waiting.push(resolve));
      }
    };
    await within(known(), ms);
  }

  /** Address and tracks come in either order. */
  #learn(id: string, news: Partial<Player>): void {
    const before = this.#players.get(id) ?? { address: null, audio: null, video: null };
    const told = Object.entries(news).filter(([, value]) => value !== null);
    const player = { ...before, ...(Object.fromEntries(told) as Partial<Player>) };
    this.#players.set(id, player);
    if (!player.address || (player.audio === null && player.video === null)) return;
    const sounds = (player.audio ?? '[]') !== '[]';
    this.#known.set(player.address, sounds || this.#known.get(player.address) === true);
    for (const tell of this.#waiting.splice(0)) tell();
  }
}

/** How the browser names a file whose address is long, as one that holds the file itself. */
function shorten(address: string): string {
  return address.length > LONGEST ? `${address.slice(0, LONGEST - 3)}...` : address;
}

const LONGEST = 1000;

function getLoadAddress({ value }: Protocol.Media.PlayerEvent): string | null {
  return /"url":"([^"]+)"/.exec(value)?.[1] ?? null;
}
