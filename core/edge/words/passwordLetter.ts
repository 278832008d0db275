import { say } from '../../base/words/say.js';
import type { MessageText } from '../../workshop/messages/templates.js';

/** minutes that a link for a new password opens; long enough for a slow mailbox, short enough for a shared one */
export const LINK_MINUTES = 60;

export interface PasswordLetter {
  readonly person: string;
  readonly workshop: string;
  readonly link: string;
  /** the workshop has a public address: the link opens everywhere, else on the server's own machine alone */
  readonly opensEverywhere: boolean;
}

/** The letter that lets somebody choose a new password. It names no machine and no owner: a mailbox is read by others. */
export function passwordLetter({ person, workshop, link, opensEverywhere }: PasswordLetter): MessageText {
  const lines = [
    say('Hello {person},', { person }),
    say(
      'somebody asked for a new password for your account at {workshop}. If it was you, open this page within {minutes} minutes and choose one:',
      { workshop, minutes: LINK_MINUTES },
    ),
    link,
    ...(opensEverywhere ? [] : [say('It opens on the machine of the server only: the workshop has set no public address.')]),
    say('If it was not you, nothing has changed, and nothing needs to be done.'),
  ];
  return { subject: say('A new password for {workshop}', { workshop }), body: lines.join('\n\n') };
}
