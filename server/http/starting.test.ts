import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { answerWhileStarting } from './starting';

describe('a server that is still starting', () => {
  let server: Server;
  let url: string;
  beforeAll(async () => {
    server = createServer(answerWhileStarting);
    await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
    url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  });
  afterAll(() => new Promise((done) => server.close(done)));

  test.each(['/', '/piece/salt-pier/play'])(
    'gives a browser that opens %s a page that loads itself again',
    async (at) => {
      const answer = await fetch(url + at, { headers: { accept: 'text/html,application/xhtml+xml,*/*;q=0.8' } });
      expect([answer.status, answer.headers.get('retry-after')]).toEqual([503, '1']);
      expect(answer.headers.get('content-type')).toMatch('text/html');
      expect(await answer.text()).toMatch(/http-equiv="refresh" content="1"[^]*Zephiro is starting/);
    },
  );

  test.each([
    ['GET', 'application/json'],
    ['GET', '*/*'],
    ['PUT', 'text/html'],
  ])('answers %s of %s with a problem document', async (method, accept) => {
    const answer = await fetch(`${url}/api/pieces/p1`, { method, headers: { accept } });
    expect([answer.status, answer.headers.get('content-type')]).toEqual([503, 'application/problem+json']);
    expect(await answer.json()).toEqual(expect.objectContaining({ status: 503, title: 'Still starting' }));
  });
});
