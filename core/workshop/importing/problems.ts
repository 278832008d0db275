/** What is wrong with a cell or a row: codes with values; `core/edge/words/importing` makes words of them. */
export type CellProblem =
  | { readonly why: 'missing' }
  | { readonly why: 'not-hours' | 'not-a-days-hours' | 'not-a-volume' | 'not-a-temperature' | 'not-a-tube' | 'not-a-day' | 'a-year-alone' }
  | { readonly why: 'not-meter-hours'; readonly most: number }
  | { readonly why: 'volume-out-of-range'; readonly mostMl: number }
  | { readonly why: 'in-the-future' }
  | { readonly why: 'no-channel' | 'not-a-phone' | 'not-an-email' }
  | { readonly why: 'too-long'; readonly most: number }
  | { readonly why: 'coolant-not-known' }
  /** a refill whose coolant nobody knows starts no clock */
  | { readonly why: 'no-clock-without-coolant' }
  | { readonly why: 'machine-there-already'; readonly machine: string; readonly owner: string }
  | { readonly why: 'tag-there-already'; readonly tag: string }
  | { readonly why: 'which-machine'; readonly machine: string; readonly count: number }
  | { readonly why: 'no-such-machine'; readonly machine: string }
  | { readonly why: 'filled-that-day'; readonly on: string }
  | { readonly why: 'in-a-run'; readonly machine: string };
