// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';
import type { FalloutAnswer } from '@core/workshop/fallout/answers.js';
import { fakeServer, mountScreen, settle, wordsOf } from '../../../tests/screens/mountScreen.js';
import { useNotices } from '../../base/shell/notices.js';
import FalloutStages from './FalloutStages.vue';

const look = (stage: 'comes-back' | 'stays', on: string) => ({ id: `${stage} ${on}`, stage, on, note: '', by: 'Ida' });
async function open(answer: FalloutAnswer, mayWrite = true) {
  const asked = fakeServer(({ method, body }) => ({
    status: method === 'POST' ? 201 : 200,
    body:
      method === 'POST' && (body as { stage?: string } | null)?.stage
        ? { ...answer, looks: [look('stays', '2026-05-01'), ...answer.looks] }
        : answer,
  }));
  const screen = mountScreen(FalloutStages, {
    props: { loopId: 'l', coolantClass: 'opaque', found: answer, today: '2026-05-01', mayWrite },
  });
  await settle();
  return { screen, asked };
}
const press = async (screen: ReturnType<typeof mountScreen>, label: string): Promise<void> => {
  await screen.find(`button[aria-label="${label}"]`).trigger('click');
  await settle();
};

describe('fallout on a machine’s page', () => {
  it('says how to look where nothing was seen since the fill', async () => {
    const { screen } = await open({ filledOn: '2026-04-01', looks: [look('stays', '2026-03-20')] });
    expect(wordsOf(screen)).toContain('Nothing was seen since the fill of 1 Apr 2026. Look at it settled');
    expect(screen.findAll('li.seen')).toHaveLength(0);
  });

  it('writes a stage down with one touch, says what follows, and takes it back', async () => {
    const { screen, asked } = await open({ filledOn: '2026-04-01', looks: [look('comes-back', '2026-04-20')] });
    expect(wordsOf(screen)).toContain('Stir it while it stands');
    await press(screen, 'Seen today: lies there, and does not come back');
    expect(asked.at(-1)).toMatchObject({ method: 'POST', path: '/loops/l/fallout', body: { stage: 'stays', on: '2026-05-01' } });
    expect(screen.find('.danger').text()).toContain('strip and clean');
    expect(screen.emitted('changed')).toHaveLength(1);
    // what was seen today need not be seen again today
    expect(screen.find('button[aria-label="Seen today: lies there, and does not come back"]').exists()).toBe(false);
    useNotices().current?.undo?.();
    await settle();
    expect(asked.at(-1)).toMatchObject({ method: 'DELETE' });
  });

  it('is read only for who may not write, and says nothing of a loop that was never filled here', async () => {
    const { screen } = await open({ filledOn: '2026-04-01', looks: [look('comes-back', '2026-04-20')] }, false);
    expect(screen.findAll('button')).toHaveLength(0);
    expect((await open({ filledOn: null, looks: [] })).screen.find('.fallout').exists()).toBe(false);
  });
});
