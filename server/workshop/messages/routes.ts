import type { MessagesAnswer } from '../../../core/workshop/messages/answers.js';
import { jobLetterSchema, messageSchema, type JobLetterInput, type MessageInput } from '../../../core/workshop/messages/schema.js';
import { bodyAs } from '../../base/http/context.js';
import type { Routes } from '../../base/http/routes.js';
import { writeJobLetter } from './jobLetters.js';
import { askMessage, listMessages } from './messages.js';

export function messageRoutes(routes: Routes): void {
  routes.get<MessagesAnswer>('/messages', listMessages);
  routes.post<{ told: boolean }>('/jobs/:id/letters', (ask) => writeJobLetter(ask, bodyAs<JobLetterInput>(ask.request, jobLetterSchema)));
  routes.post<MessagesAnswer>('/messages', (ask) => askMessage(ask, bodyAs<MessageInput>(ask.request, messageSchema)));
}
