import fc from 'fast-check';
import mqttPacket from 'mqtt-packet';
import { describe, expect, it } from 'vitest';
import { PACKETS, PacketBounds } from './packetBounds.js';

const connect = mqttPacket.generate({
  cmd: 'connect',
  clientId: 'gauge',
  protocolId: 'MQTT',
  protocolVersion: 4,
  clean: true,
  keepalive: 30,
});
const publish = (bytes: number): Buffer =>
  mqttPacket.generate({ cmd: 'publish', topic: 't', payload: Buffer.alloc(bytes), qos: 0, dup: false, retain: false });
const PING = mqttPacket.generate({ cmd: 'pingreq' });

describe('the bounds of a device’s packets', () => {
  it('let through what devices send, however the network cuts it', () => {
    const stream = Buffer.concat([connect, publish(90), PING, publish(5000), publish(127), publish(128), PING]);
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 700 }), { minLength: 1, maxLength: 60 }), (cuts) => {
        const bounds = new PacketBounds(() => 0);
        let at = 0;
        for (const cut of [...cuts, stream.length]) {
          if (!bounds.takes(stream.subarray(at, at + cut))) return false;
          at += cut;
        }
        return true;
      }),
    );
  });

  it('see a length that nobody needs before its bytes come', () => {
    const bounds = new PacketBounds(() => 0);
    expect(bounds.takes(connect)).toBe(true);
    expect(bounds.takes(publish(PACKETS.mostBytes).subarray(0, 5))).toBe(false);
    // a length field that does not end
    expect(new PacketBounds(() => 0).takes(Buffer.from([0x10, 0x80, 0x80, 0x80, 0x80]))).toBe(false);
  });

  it('are narrower before anybody has signed in', () => {
    const large = mqttPacket.generate({
      cmd: 'connect',
      clientId: 'x'.repeat(5000),
      protocolId: 'MQTT',
      protocolVersion: 4,
      clean: true,
      keepalive: 30,
    });
    expect(new PacketBounds(() => 0).takes(large)).toBe(false);
  });

  it('end a flood, and not a bench that is busy for hours', () => {
    let nowMs = 0;
    const flood = new PacketBounds(() => nowMs);
    let taken = 0;
    while (taken < 10 * PACKETS.burst && flood.takes(PING)) taken += 1;
    expect(taken).toBe(PACKETS.burst);
    const busy = new PacketBounds(() => nowMs);
    for (let n = 0; n < 20_000; n += 1) {
      nowMs += 1000 / 70;
      expect(busy.takes(PING)).toBe(true);
    }
  });
});
