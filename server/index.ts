import type { Express } from 'express';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join, resolve } from 'node:path';
import { createApp } from './app';
import { installDemo, installMadeDemo } from './demo';
import { MADE_DEMOS } from './jobs/jobs';
import { toProblem } from './http/problem';
import { answerWhileStarting } from './http/starting';
import { openServices, type Services } from './services';
import { lockFolder } from './store/folderLock';
import { reasonOf } from '../src/core/reasonOf';

/** Made by `npm run build:rt`. */
const BUILT = join(__dirname, '..', 'build');

/** Reasons that a person who starts the server can do something about, by the code of the system. */
const REASONS: Readonly<Record<string, string>> = {
  EACCES: 'it may not be written by this user',
  EPERM: 'it may not be written by this user',
  EROFS: 'it lies on a disk that may only be read',
  ENOTDIR: 'a file lies in its place, or in the place of a folder that it is in',
  EEXIST: 'a file lies in its place',
  ENOSPC: 'the disk is full',
  SQLITE_CANTOPEN: 'its files cannot be opened; they may belong to another user',
  SQLITE_READONLY: 'it may not be written by this user',
};

/**
 * Settings from the environment: PORT, HOST, ZEPHIRO_DATA, ZEPHIRO_DEMO, ZEPHIRO_HOSTS. Listens on loopback unless HOST
 * says otherwise.
 */
async function main(): Promise<void> {
  const dataFolder = resolve(process.env.ZEPHIRO_DATA ?? 'data');
  const host = process.env.HOST ?? '127.0.0.1';
  const server = createServer(answerWhileStarting);
  // No time limit for uploads; the app ends one that stalls.
  server.requestTimeout = 0;
  const address = await listen(server, Number(process.env.PORT ?? 4000), host);
  const services = await open(dataFolder, address);
  const hosts = [host, ...(process.env.ZEPHIRO_HOSTS ?? '').split(',')];
  const app: Express = createApp({ services, client: resolve('dist'), hosts });
  server.off('request', answerWhileStarting).on('request', app);
  process.stdout.write(`Zephiro is at ${address}\n`);
  if (process.env.ZEPHIRO_DEMO === 'no') return;
  for (const demo of MADE_DEMOS) await tryDemo(() => installMadeDemo(services, demo, ended.signal), dataFolder);
}

/** Listens before anything of the data folder is touched: a second server on the same port never gets that far. */
function listen(server: Server, port: number, host: string): Promise<string> {
  return new Promise((done) => {
    server.once('error', (error: NodeJS.ErrnoException) => {
      const reason = error.code === 'EADDRINUSE' ? `another program listens at port ${port} already` : error.message;
      end(
        `Zephiro cannot be reached at http://${host}:${port}: ${reason}. Start it with PORT=<another number>. Nothing was changed.`,
      );
    });
    server.listen(port, host, () => {
      const named = host.includes(':') ? `[${host}]` : host;
      done(`http://${named}:${(server.address() as AddressInfo).port}`);
    });
  });
}

async function open(dataFolder: string, address: string): Promise<Services> {
  try {
    const unlock = lockFolder(dataFolder, address);
    const services = await openServices({
      dataFolder,
      built: BUILT,
      onError: (message) => void process.stderr.write(`${message}\n`),
    });
    closeOnSignal(services, unlock);
    if (process.env.ZEPHIRO_DEMO !== 'no') await tryDemo(() => installDemo(services), dataFolder);
    return services;
  } catch (error) {
    const code = error instanceof Error && 'code' in error ? String(error.code) : '';
    const reason = REASONS[code];
    const message = reasonOf(error);
    return end(reason ? `The data folder ${dataFolder} cannot be used: ${reason}.` : message);
  }
}

/** Stores a demo piece. Where that fails the server works without it, and says why. */
async function tryDemo(install: () => Promise<void>, dataFolder: string): Promise<void> {
  try {
    await install();
  } catch (error) {
    if (ended.signal.aborted) return;
    const { title, detail } = toProblem(error);
    process.stderr.write(`The demo could not be put into ${dataFolder}. ${title}: ${detail}\n`);
  }
}

/** Told once the server is to end. */
const ended = new AbortController();

function closeOnSignal(services: Services, unlock: () => void): void {
  const close = (): void => {
    ended.abort();
    void services.close().finally(() => {
      unlock();
      process.exit(0);
    });
  };
  process.once('SIGTERM', close);
  process.once('SIGINT', close);
}

/** One line for the person who started it, and out. */
function end(message: string): never {
  process.stderr.write(`${message}\n`);
  process.exit(1);
}

void main();
