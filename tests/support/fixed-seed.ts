import fc from 'fast-check';

// A property test is named after its seed, and a fault is tried against tests by their names: with a seed drawn anew each time those that
// reached a place once would not be found again, and every fault there would go unnoticed.
fc.configureGlobal({ ...fc.readConfigureGlobal(), seed: 20261125 });
