import { createServer } from 'node:http';
import { MailBox } from './mail-box.js';
import { mailPage } from './mail-page.js';

// The outside world, simulated on loopback. So far: mail. Ports come from the environment; 0 takes any that is free.
const mailPort = Number(process.env['SIFT_REEL_MAIL_PORT'] ?? 4312);
const pagePort = Number(process.env['SIFT_REEL_STANDINS_PORT'] ?? 4313);

const box = new MailBox();
await box.listen(mailPort);
const pages = createServer((request, response) => {
  if (request.url === '/mail.json') response.setHeader('Content-Type', 'application/json').end(JSON.stringify(box.list()));
  else if (request.url === '/' || request.url === '/mail') response.setHeader('Content-Type', 'text/html; charset=utf-8').end(mailPage(box.list()));
  else response.writeHead(404).end('nothing here');
});
pages.listen(pagePort, '127.0.0.1', () => process.send?.({ ready: true }));

const stop = (): void => {
  pages.closeAllConnections();
  pages.close();
  void box.close().then(() => process.exit(0));
};
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, stop);
if (process.send !== undefined) process.on('disconnect', stop);
