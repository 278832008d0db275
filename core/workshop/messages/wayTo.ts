import type { MessageWay } from './templates.js';

export interface Reachable {
  readonly channel: 'phone' | 'email' | 'text';
  readonly email: string | null;
  readonly phone: string | null;
}

/** How an owner is written to: as a text where that is liked, else by e-mail; null: call instead. */
export const wayTo = ({ channel, email, phone }: Reachable): { readonly way: MessageWay; readonly address: string } | null => {
  if (channel === 'text' && phone !== null) return { way: 'text', address: phone };
  return email === null ? null : { way: 'email', address: email };
};

/** Who is written to without being asked: whoever did not say that he is to be called. */
export const isWrittenTo = (own: Reachable): boolean => own.channel !== 'phone' && wayTo(own) !== null;
