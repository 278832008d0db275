import { say } from '../../base/words/say.js';

/** How an owner is reached: by what they like, else by whatever is on record. */
export const reachWords = ({
  channel,
  phone,
  email,
}: {
  readonly channel: string;
  readonly phone: string | null;
  readonly email: string | null;
}): string => (channel === 'email' ? email : phone) ?? phone ?? email ?? say('no number on record');
