import fc from 'fast-check';

/**
 * Property tests draw the same cases in every run, so that none of them needs luck; another seed looks elsewhere:
 * `LAVACRUM_SEED=7 ./lavacrum test unit`. What fails prints its seed and its path.
 */
fc.configureGlobal({ seed: Number(process.env.LAVACRUM_SEED ?? 1) });
