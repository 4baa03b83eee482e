import fc from 'fast-check';

// A mutant that a law does not notice in so many runs is looked at by hand.
fc.configureGlobal({ numRuns: 10 });
