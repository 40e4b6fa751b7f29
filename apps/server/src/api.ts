import { buildApp } from './api/app.js';
import { ConfigError, readConfig } from './config/config.js';
import { log } from './config/logger.js';
import { stopWithParent } from './stop-with-parent.js';

try {
  const config = readConfig();
  const app = await buildApp();
  stopWithParent();
  await app.listen(config.port, config.host);
  log.info({ host: config.host, port: config.port }, 'API is listening');
  process.send?.({ ready: true });
} catch (error) {
  const inUse = (error as NodeJS.ErrnoException).code === 'EADDRINUSE';
  process.stderr.write(
    `${inUse ? `The port ${process.env['SIFT_REEL_PORT'] ?? 4310} is in use.` : error instanceof ConfigError ? error.message : String(error instanceof Error ? error.stack : error)}\n`,
  );
  process.exit(1);
}
