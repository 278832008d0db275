/** The secret address of an owner's page, and how much may come through it. */
export const LINK = {
  /** bytes of the secret: nobody tries 2^192 addresses */
  secretBytes: 24,
  /** days until it ends by itself: a service with its awaited parts and its settling check lies well within */
  days: 120,
  /** entries through one link, and bytes of its pictures and files: an owner sends a handful */
  mostEntries: 60,
  mostFiles: 20,
  /** bytes of one picture or file as it arrives, made small on the device */
  mostFileBytes: 5_000_000,
} as const;

/** What a secret looks like: 24 bytes in base64url. Whatever looks otherwise is asked of no table. */
export const SECRET_PATTERN = /^[A-Za-z0-9_-]{32}$/;

/** where the page lies on its server */
export const DOOR_PATH = '/door/#';

/** Its whole address; the secret stands behind the hash sign, which browsers send to no server. */
export const doorAddress = (origin: string, secret: string): string => `${origin}${DOOR_PATH}${secret}`;
