import { resolve } from 'node:path';
import { createApp } from './app';
import { openDatabase } from './database';
import { installDemo } from './demo';

/** Listens on loopback unless HOST says otherwise. */
async function main(): Promise<void> {
  const dataFolder = resolve(process.env.ZEPHIRO_DATA ?? 'data');
  const port = Number(process.env.PORT ?? 4000);
  const host = process.env.HOST ?? '127.0.0.1';
  const db = openDatabase(dataFolder);
  await installDemo(db, dataFolder);
  const server = createApp({ db, dataFolder, client: resolve('dist') }).listen(port, host, () => {
    process.stdout.write(`Zephiro is at http://${host}:${port}\n`);
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
