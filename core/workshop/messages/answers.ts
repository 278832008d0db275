/** What was written to owners, and what the stand-in of the mail service keeps. */
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
  standIn: { id: string; at: string; sender: string; recipient: string; subject: string }[];
}
