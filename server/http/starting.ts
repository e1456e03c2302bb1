import type { RequestListener } from 'node:http';

const PAGE = `<!doctype html>
<html lang="en">
<meta charset="utf-8" />
<meta name="viewport" content="width=device-width, initial-scale=1" />
<meta http-equiv="refresh" content="1" />
<title>Zephiro is starting</title>
<style>
  :root { color-scheme: light dark; --paper: #f6f2e9; --ink: #20303a; }
  @media (prefers-color-scheme: dark) { :root { --paper: #0d171d; --ink: #e9e4d8; } }
  body { margin: 0; min-height: 100vh; display: grid; place-content: center; padding: 24px; box-sizing: border-box;
    background: var(--paper); color: var(--ink); font: 18px/1.5 serif; }
</style>
<main role="status">Zephiro is starting. It opens here by itself.</main>
</html>
`;

const PROBLEM = JSON.stringify({
  type: 'about:blank',
  title: 'Still starting',
  status: 503,
  detail: 'Try again in a second.',
});

/**
 * Answers every request while the data folder is opened and the demo is written: 503, to be asked again in a second. A
 * browser that opens a page gets one that loads itself again, all others a problem document.
 */
export const answerWhileStarting: RequestListener = (req, res) => {
  const isPage = req.method === 'GET' && (req.headers.accept ?? '').includes('text/html');
  res.writeHead(503, {
    'Content-Type': isPage ? 'text/html; charset=utf-8' : 'application/problem+json',
    'Retry-After': '1',
    'Cache-Control': 'no-store',
  });
  res.end(isPage ? PAGE : PROBLEM);
};
