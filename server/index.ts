import { join, resolve } from 'node:path';
import { createApp } from './app';
import { openDatabase } from './database';
import { installDemo } from './demo';
import { toProblem } from './problem';

/** Made by `npm run build:rt`. */
const BUILT = join(__dirname, '..', 'build');

/** Listens on loopback unless HOST says otherwise. */
async function main(): Promise<void> {
  const dataFolder = resolve(process.env.ZEPHIRO_DATA ?? 'data');
  const port = Number(process.env.PORT ?? 4000);
  const host = process.env.HOST ?? '127.0.0.1';
  const db = openDatabase(dataFolder);
  if (process.env.ZEPHIRO_DEMO !== 'no') {
    await installDemo(db, dataFolder).catch((error: unknown) => {
      const { title, detail } = toProblem(error);
      process.stderr.write(`The demo could not be put into ${dataFolder}. ${title}: ${detail}\n`);
    });
  }
  const server = createApp({ db, dataFolder, client: resolve('dist'), built: BUILT, hosts: [host, ...(process.env.ZEPHIRO_HOSTS ?? '').split(',')] }).listen(port, host, (error?: NodeJS.ErrnoException) => {
    if (error) {
      const reason = error.code === 'EADDRINUSE' ? `another program listens at port ${port} already` : error.message;
      process.stderr.write(`Zephiro cannot be reached at http://${host}:${port}: ${reason}. Start it with PORT=<another number>. The pieces in ${dataFolder} are kept.\n`);
      process.exit(1);
    }
    const at = server.address();
    process.stdout.write(`Zephiro is at http://${host}:${at && typeof at === 'object' ? at.port : port}\n`);
  });
  const end = (): void => {
    server.close(() => {
      db.close();
      process.exit(0);
    });
    server.closeAllConnections();
  };
  process.on('SIGTERM', end);
  process.on('SIGINT', end);
}

void main();
