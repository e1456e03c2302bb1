import { spawn, type ChildProcess } from 'node:child_process';
import { join } from 'node:path';

const ROOT = join(__dirname, '..');

/**
 * Starts a server of one's own on a folder of data, and waits until it listens.
 * @param more of the environment
 * @throws when it ends before it does, as it would when another holds its port
 */
export async function startServer(
  folder: string,
  port: number,
  more: Record<string, string> = {},
): Promise<ChildProcess> {
  const server = spawn(process.execPath, ['--import', 'tsx', 'server/index.ts'], {
    cwd: ROOT,
    env: { ...process.env, ZEPHIRO_DATA: folder, PORT: String(port), ...more },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await new Promise<void>((resolve, reject) => {
    server.stdout.once('data', () => resolve());
    server.once('exit', (code) =>
      reject(new Error(`The server on port ${port} ended with ${code} before it listened; what it said stands above.`)),
    );
  });
  return server;
}
