import type { MessagesAnswer } from '../../../core/workshop/messages/answers.js';
import { messageSchema, type MessageInput } from '../../../core/workshop/messages/schema.js';
import { bodyAs } from '../../base/http/context.js';
import type { Routes } from '../../base/http/routes.js';
import { askMessage, listMessages } from './messages.js';

export function messageRoutes(routes: Routes): void {
  routes.get<MessagesAnswer>('/messages', listMessages);
  routes.post<MessagesAnswer>('/messages', (ask) => askMessage(ask, bodyAs<MessageInput>(ask.request, messageSchema)));
}
