export * from './problem.js';
export * from './session.js';
export * from './library.js';
export * from './orders.js';
export * from './bench.js';
export * from './ledger.js';
export * from './displays.js';
