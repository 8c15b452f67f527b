import fc from 'fast-check';

// One seed, so that a run says the same tomorrow; YPHOS_SEED tries others.
fc.configureGlobal({ seed: Number(process.env.YPHOS_SEED ?? 20261124) });
