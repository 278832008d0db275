import { say } from '@core/base/words/say.js';
import type { Arrival } from '@core/workshop/jobs/arrival.js';
import type { JobPage } from '@core/workshop/jobs/answers.js';
import { call, wordsOf } from '../../base/http/api.js';
import { useNotices } from '../../base/shell/notices.js';

const SAID: Readonly<Record<Arrival, (machine: string) => string>> = {
  brought: (machine) => say('{machine} is here.', { machine }),
  'not-come': (machine) => say('{machine} did not come; its place is free again.', { machine }),
  fetched: (machine) => say('{machine} went home.', { machine }),
};

/** Writes down who came and who went, with its undo. */
export function useArrivals(changed: () => unknown) {
  const notices = useNotices();
  const write = async (jobId: string, what: Arrival, on: string | null, version: number): Promise<JobPage> =>
    call<JobPage>('PUT', `/jobs/${jobId}/arrival`, { body: { what, on, version } });
  return {
    say: async (job: { jobId: string; systemName: string; version: number }, what: Arrival, today: string): Promise<void> => {
      try {
        const after = await write(job.jobId, what, today, job.version);
        notices.say(SAID[what](job.systemName), async () => {
          await write(job.jobId, what, null, after.version);
          await changed();
        });
      } catch (error) {
        notices.say(wordsOf(error));
      }
      await changed();
    },
  };
}
