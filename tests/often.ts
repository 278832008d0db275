/**
 * How often a test looks where every look costs: all of it every night and in `./lavacrum reliability` (LAVACRUM_THOROUGH=1), a fifth, or
 * a smaller `part`, at every change. Seeds are the same in both, from the first on.
 */
export const often = (times: number, part = 5): number => (process.env.LAVACRUM_THOROUGH ? times : Math.ceil(times / part));
