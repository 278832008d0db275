import { createServer, connect, type AddressInfo, type Server, type Socket } from 'node:net';
import mqtt from 'mqtt';
import type { InstrumentsAnswer } from '../../core/bench/instruments/answers.js';
import { instrumentTopic } from '../../core/bench/instruments/topics.js';
import { expect, RunningApp, signIn, test } from './app.js';

/** What stands in front of several servers: each connection goes to the first that takes it, and ends with it. */
class FrontDoor {
  private constructor(
    private readonly server: Server,
    private readonly open: Set<Socket>,
  ) {}

  static async before(...urls: string[]): Promise<FrontDoor> {
    const open = new Set<Socket>();
    const server = createServer((visitor) => {
      open.add(visitor);
      visitor.on('close', () => open.delete(visitor));
      visitor.on('error', () => visitor.destroy());
      const go = ([port, ...others]: readonly number[]): void => {
        if (port === undefined) return void visitor.destroy();
        let taken = false;
        const behind = connect(port, '127.0.0.1', () => {
          taken = true;
          visitor.pipe(behind).pipe(visitor);
        });
        behind.on('error', () => (taken ? visitor.destroy() : go(others)));
        behind.on('close', () => taken && visitor.destroy());
        visitor.on('close', () => behind.destroy());
      };
      go(urls.map((url) => Number(new URL(url).port)));
    });
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    return new FrontDoor(server, open);
  }

  get url(): string {
    return `http://localhost:${(this.server.address() as AddressInfo).port}`;
  }

  close(): void {
    for (const visitor of this.open) visitor.destroy();
    this.server.close();
  }
}

test('one of two servers is killed under the hands: sessions, entries and instruments go on at the other', async ({ page }) => {
  const first = await RunningApp.open(true);
  const second = await first.beside();
  const door = await FrontDoor.before(first.url, second.url);
  const devices: mqtt.MqttClient[] = [];
  try {
    await signIn(page, { url: door.url } as RunningApp);
    await page.getByRole('article').filter({ hasText: 'Edit suite' }).getByRole('link').click();
    await expect(page.locator('.title h2')).toHaveText('Wet test');
    const write = async (text: string): Promise<void> => {
      await page.keyboard.press('m');
      await page.getByLabel('What you saw or did').fill(text);
      await page.getByRole('button', { name: 'Write it down' }).click();
    };
    await write('written at the first');
    await expect(page.locator('.notes')).toContainText('written at the first');

    // a device that was given both addresses
    const runId = page.url().split('/').at(-1) as string;
    const { benchId, workshopId, token } = await page.evaluate(async (id) => {
      const ask = async (path: string): Promise<unknown> => (await fetch(path)).json();
      const session = (await ask('/api/session')) as { token: string; account: { workshopId: string } };
      const { run } = (await ask(`/api/runs/${id}`)) as { run: { benchId: string } };
      return { benchId: run.benchId, workshopId: session.account.workshopId, token: session.token };
    }, runId);
    // the one that speaks has heard of the other
    const others = async (): Promise<number> =>
      ((await (await page.request.get(`${door.url}/api/instruments`)).json()) as InstrumentsAnswer).broker.others.length;
    await expect.poll(others).toBe(1);
    const answer = await page.request.post(`${door.url}/api/benches/${benchId}/access`, {
      data: {},
      headers: { 'x-lavacrum-token': token },
    });
    const access = (await answer.json()) as { name: string; secret: string; url: string; others: string[] };
    expect(access.others).toHaveLength(1);
    const servers = [access.url, ...access.others].map((url) => ({
      protocol: 'mqtt' as const,
      host: '127.0.0.1',
      port: Number(new URL(url).port),
    }));
    const gauge = mqtt.connect({ protocol: 'mqtt', servers, username: access.name, password: access.secret, reconnectPeriod: 500 });
    devices.push(gauge);
    gauge.on('error', () => undefined);
    const topic = (channel: 'state' | 'reading') => instrumentTopic({ workshopId, benchId, kind: 'gauge', channel });
    gauge.on('connect', () => gauge.publish(topic('state'), '{"online":true,"unit":"kPa"}', { retain: true, qos: 1 }));
    const reads = (value: number) =>
      setInterval(() => gauge.connected && gauge.publish(topic('reading'), JSON.stringify({ value }), { qos: 0 }), 200);
    const face = page.locator('.strip .face').filter({ hasText: 'Pressure gauge' });
    const before = reads(12.3);
    await expect(face).toContainText('12.3');
    clearInterval(before);

    await first.kill();
    await write('written while nobody answered');
    await expect(page.locator('.notes')).toContainText('written while nobody answered');
    await expect(page.getByText(/on this device only|written to this device/)).toBeHidden();
    const after = reads(45.6);
    await expect(face).toContainText('45.6');
    clearInterval(after);

    // nobody signs in anew, nothing is lost, nothing stands there twice
    await page.reload();
    for (const text of ['written at the first', 'written while nobody answered'])
      await expect(page.locator('.notes li').filter({ hasText: text })).toHaveCount(1);

    // the one that was killed comes back beside the other, and knows who is signed in
    await first.start();
    const there = await page.request.get(`${first.url}/api/session`, { headers: { cookie: (await page.context().cookies()).map(({ name, value }) => `${name}=${value}`).join('; ') } }); // prettier-ignore
    expect(((await there.json()) as { account: { personName: string } }).account.personName).toBeTruthy();
    await page.goto(`${door.url}/workshop/server`);
    await expect(page.getByRole('list', { name: 'Servers on this database' }).getByRole('listitem')).toHaveCount(2);
  } finally {
    for (const each of devices) each.end(true);
    door.close();
    await second.kill();
    await first.kill();
  }
});
