import type { FirstStep } from '@core/workshop/first-week/firstWeek.js';

/** What each step of the first week is called, why it is asked, and what somebody says who needs nothing of it. */
export const STEP_WORDS: Readonly<Record<FirstStep, { readonly title: string; readonly why: string; readonly pass: string }>> = {
  benches: {
    title: 'Benches',
    why: 'What stands on a bench is seen by everybody; a plan needs to know how many there are.',
    pass: 'One bench is enough',
  },
  people: {
    title: 'People',
    why: 'Whoever works here signs in under their own name: every entry of a run carries it.',
    pass: 'It is only me',
  },
  hours: { title: 'Hours', why: 'Slots are offered within the hours of those who work at benches.', pass: 'We plan elsewhere' },
  coolants: {
    title: 'Coolants',
    why: 'What a coolant lasts makes the dates. Start from the class; its own sheet goes before it later.',
    pass: 'Later',
  },
  machines: {
    title: 'Machines',
    why: 'Bring a table in, enter the first machine, or try everything with a sample that is taken away again.',
    pass: 'Later',
  },
  address: { title: 'Address', why: 'Letters and papers carry it.', pass: 'Nobody needs it' },
  prices: { title: 'Prices', why: 'Estimates are reckoned from what an hour costs.', pass: 'We reckon prices elsewhere' },
};
