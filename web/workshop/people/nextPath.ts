/** Where somebody wanted to go before signing in. Only a path of this app: an address from outside must not send anybody away. */
export const nextPath = (next: unknown): string => (typeof next === 'string' && /^\/(?!\/)/.test(next) ? next : '/today');
