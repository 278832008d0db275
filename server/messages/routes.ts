import { messageSchema, type MessageInput } from '../../core/messages/schema.js';
import { bodyAs } from '../http/context.js';
import type { Routes } from '../http/routes.js';
import { askMessage, listMessages } from './messages.js';

export function messageRoutes(routes: Routes): void {
  routes.get('/messages', listMessages);
  routes.post('/messages', (ask) => askMessage(ask, bodyAs<MessageInput>(ask.request, messageSchema)));
}
