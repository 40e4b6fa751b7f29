import { buildApp } from './api/app.js';
import { readConfig } from './config/config.js';
import { log } from './config/logger.js';
import { startPart } from './start-part.js';

await startPart(async () => {
  const { host, port } = readConfig();
  const app = await buildApp();
  await app.listen(port, host);
  log.info({ host, port }, 'API is listening');
});
