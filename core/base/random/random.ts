/** Seeded random numbers (mulberry32), so that the demo is the same workshop every time. */
export interface Random {
  /** 0 ≤ x < 1 */
  next(): number;
  pick<T>(list: readonly T[]): T;
  between(low: number, high: number): number;
  /** normally distributed, mean 0, standard deviation 1 */
  normal(): number;
  uuid(): string;
}

export function seededRandom(seed: number): Random {
  let state = seed >>> 0;
  const next = (): number => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
  const hex = (digits: number): string => Array.from({ length: digits }, () => Math.floor(next() * 16).toString(16)).join('');
  return {
    next,
    pick: (list) => list[Math.floor(next() * list.length)] as (typeof list)[number],
    between: (low, high) => low + next() * (high - low),
    normal: () => Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next()),
    uuid: () => `${hex(8)}-${hex(4)}-4${hex(3)}-8${hex(3)}-${hex(12)}`,
  };
}
