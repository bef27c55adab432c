import fc from 'fast-check'

// Property tests draw the same cases every time, so that a red run means a change; FC_SEED=… looks elsewhere.
fc.configureGlobal({ seed: Number(process.env.FC_SEED ?? 20310502) })
