/** What owners were told, and what the mail stand-in took. */
export interface MessagesAnswer {
  messages: {
    id: string;
    at: string;
    sentAt: string | null;
    address: string;
    subject: string;
    body: string;
    state: 'waiting' | 'sent' | 'failed';
    problem: string;
    systemId: string;
    systemName: string;
    by: string | null;
  }[];
  /** `text` of letters that stand nowhere else: a link for a new password */
  standIn: { id: string; at: string; sender: string; recipient: string; subject: string; text: string | null }[];
}
