import fc from 'fast-check';

/** Property tests draw the same cases in every run, so that a run can be repeated; `KEVRO_SEED=any` draws new ones, which a failure names. */
const seed = process.env['KEVRO_SEED'] ?? '20261126';
if (Number.isInteger(Number(seed))) fc.configureGlobal({ seed: Number(seed) });
