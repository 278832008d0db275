/** machines that a page of a list brings, and at most: 200 are some 120 kB */
export const PAGE = { usual: 50, most: 200 } as const;
/** machines of each row of Today that come with it: what a screen and a half shows */
export const PAGE_OF_TODAY = 40;
/** Days ahead that the Today screen looks. */
export const HORIZON_DAYS = 45;
