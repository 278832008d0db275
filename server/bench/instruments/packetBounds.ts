import type { Socket } from 'node:net';

export const PACKETS = {
  /** bytes of one packet; a reading has about a hundred, a practice report some thousand */
  mostBytes: 32_768,
  /** bytes before somebody has signed in: a name, a secret, a last will */
  mostConnectBytes: 4096,
  /** packets a second that a device may send for long, and at once: seven instruments at ten a second, a simulated bench that skips time */
  perSecond: 400,
  burst: 4000,
} as const;

/** most bytes of the length field (MQTT 3.1.1, 2.2.3) */
const LENGTH_BYTES = 4;

/**
 * Watches a device's bytes for the borders of its packets: a length that nobody needs is seen in its first bytes, before
 * anything is gathered in memory for it.
 */
export class PacketBounds {
  private state: 'type' | 'length' | 'body' = 'type';
  private left = 0;
  private factor = 1;
  private lengthBytes = 0;
  private packets = 0;
  private tokens: number = PACKETS.burst;
  private lastMs: number;

  constructor(private readonly nowMs: () => number = Date.now) {
    this.lastMs = nowMs();
  }

  /** @returns false where the device has crossed a bound: it is shown out */
  takes(chunk: Uint8Array): boolean {
    for (let at = 0; at < chunk.length;) {
      const byte = chunk[at] as number;
      if (this.state === 'type') {
        this.state = 'length';
        [this.left, this.factor, this.lengthBytes] = [0, 1, 0];
        at += 1;
      } else if (this.state === 'length') {
        this.left += (byte & 127) * this.factor;
        this.factor *= 128;
        this.lengthBytes += 1;
        at += 1;
        if (this.left > (this.packets === 0 ? PACKETS.mostConnectBytes : PACKETS.mostBytes)) return false;
        if (byte < 128) {
          if (this.left > 0) this.state = 'body';
          else if (!this.ends()) return false;
        } else if (this.lengthBytes === LENGTH_BYTES) return false;
      } else {
        const part = Math.min(this.left, chunk.length - at);
        this.left -= part;
        at += part;
        if (this.left === 0 && !this.ends()) return false;
      }
    }
    return true;
  }

  /** A packet is whole. @returns false where they come faster than anybody measures */
  private ends(): boolean {
    this.state = 'type';
    this.packets += 1;
    const nowMs = this.nowMs();
    this.tokens = Math.min(PACKETS.burst, this.tokens + ((nowMs - this.lastMs) / 1000) * PACKETS.perSecond) - 1;
    this.lastMs = nowMs;
    return this.tokens >= 0;
  }
}

/** What is read from a socket is looked at first; past a bound the socket is closed and nothing more of it is read. */
export function boundReading(socket: Socket): void {
  const bounds = new PacketBounds();
  const read = socket.read.bind(socket) as (size?: number) => Buffer | null;
  socket.read = (size?: number): Buffer | null => {
    const chunk = read(size ?? undefined);
    if (chunk === null || bounds.takes(chunk)) return chunk;
    socket.destroy(new Error('a packet beyond its bounds'));
    return null;
  };
}
