import type { MessageWay } from './templates.js';

/** What owners were told, and what the mail stand-in took. */
export interface MessagesAnswer {
  messages: {
    id: string;
    at: string;
    sentAt: string | null;
    way: MessageWay;
    address: string;
    subject: string;
    body: string;
    state: 'waiting' | 'sent' | 'failed';
    problem: string;
    systemId: string;
    systemName: string;
    by: string | null;
  }[];
  /** `text` of letters that stand nowhere else: with a link to an owner’s page, or for a new password */
  standIn: { id: string; at: string; sender: string; recipient: string; subject: string; way: MessageWay; text: string | null }[];
}
