// Client and server with reload, on one port: `npm run dev`, with PORT and ZEPHIRO_DATA as for the server. Metro bundles
// the client and reloads it, the server starts anew when a file of its own changes, workers are bundled when one of
// theirs does. Behind the port each request goes to the one it is for, with the headers that shared memory needs.
import { spawn } from 'node:child_process';
import { setTimeout as sleep } from 'node:timers/promises';
import express from 'express';
import { createProxyMiddleware } from 'http-proxy-middleware';

const port = Number(process.env.PORT ?? 4000);
const [apiPort, clientPort] = [port + 1, port + 2];
const children = [];

function start(args, env = {}) {
  const child = spawn(process.execPath, args, { stdio: 'inherit', env: { ...process.env, ...env } });
  child.once('exit', (code) => end(code ?? 0));
  children.push(child);
}

function end(code) {
  for (const child of children) child.kill('SIGTERM');
  process.exit(code);
}

for (const signal of ['SIGINT', 'SIGTERM']) process.once(signal, () => end(0));
start(['scripts/build-realtime.mjs', '--watch']);
start(['--watch', '--import', 'tsx', 'server/index.ts'], { PORT: String(apiPort) });
start(['node_modules/expo/bin/cli', 'start', '--web', '--port', String(clientPort)], {
  EXPO_OFFLINE: '1',
  EXPO_NO_TELEMETRY: '1',
  BROWSER: 'none',
});

const isolated = {
  'Cross-Origin-Opener-Policy': 'same-origin',
  'Cross-Origin-Embedder-Policy': 'require-corp',
  'Cross-Origin-Resource-Policy': 'same-origin',
};
const toClient = createProxyMiddleware({ target: `http://localhost:${clientPort}`, ws: true });
const server = express()
  .use(createProxyMiddleware({ target: `http://127.0.0.1:${apiPort}`, pathFilter: '/api' }))
  .use((_req, res, next) => {
    res.set(isolated);
    next();
  })
  .use(toClient)
  .listen(port, '127.0.0.1');
server.on('upgrade', toClient.upgrade);

const address = `http://127.0.0.1:${port}`;
const isUp = (path) =>
  fetch(`${address}${path}`).then(
    ({ ok }) => ok,
    () => false,
  );
while (!((await isUp('/')) && (await isUp('/api/health')))) await sleep(500);
process.stdout.write(`Zephiro with reload is at ${address}\n`);
