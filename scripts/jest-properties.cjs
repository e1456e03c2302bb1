// Property tests draw the same cases at each run, unless FUZZ_SEED says otherwise: see scripts/fuzz.ts.
const fc = require('fast-check');

const FIXED = 20261129;

fc.configureGlobal({ seed: Number(process.env.FUZZ_SEED ?? FIXED) });
