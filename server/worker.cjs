// Starts a worker written in TypeScript: worker threads do not inherit the loader of the main thread.
const { workerData } = require('node:worker_threads');
require('tsx/cjs');
require(workerData.entry);
