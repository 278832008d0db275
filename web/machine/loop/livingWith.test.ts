// @vitest-environment happy-dom
import { describe, expect, it, vi } from 'vitest';
import { usualLoop } from '@core/machine/catalogue/testLoops.js';
import { DRAIN_POLICY } from '@core/physics/draining/defaults.js';
import { formatMl } from '@core/base/units/display.js';
import { mountScreen, settle, wordsOf } from '../../../tests/screens/mountScreen.js';
import { TwinEngine } from '../compute/twinEngine.js';
import LivingWith from './LivingWith.vue';

describe('what a design is to live with', () => {
  it('says what the best drain leaves, by the workshop’s own policy, as "What drains" does', async () => {
    vi.stubGlobal('Worker', undefined);
    const loop = usualLoop();
    const twin = new TwinEngine();
    twin.load(loop);
    const strict = { ...DRAIN_POLICY, mayTurn: [] };
    for (const policy of [DRAIN_POLICY, strict]) {
      const screen = mountScreen(LivingWith, { props: { loop, policy } });
      await settle();
      await settle();
      const { plan } = twin.advise(null, policy);
      expect(wordsOf(screen)).toContain(`${formatMl(Math.round(plan.leftMl))} stay after the best drain`);
      expect(wordsOf(screen)).toContain('of ' + formatMl(Math.round(plan.wholeMl)));
    }
    // before it was saved nobody knows how far this workshop goes
    const fresh = mountScreen(LivingWith, { props: { loop } });
    await settle();
    expect(wordsOf(fresh)).not.toContain('stay after the best drain');
  });
});
