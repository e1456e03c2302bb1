const { execFileSync } = require('node:child_process');
const { join } = require('node:path');

/** Threads and processes of the server are started from what is built of them. */
module.exports = () => {
  execFileSync(process.execPath, [join(__dirname, 'build-realtime.mjs'), '--server'], {
    cwd: join(__dirname, '..'),
    stdio: 'inherit',
  });
};
