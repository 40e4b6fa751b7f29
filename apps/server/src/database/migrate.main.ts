import { readConfig } from '../config/config.js';
import { migrate } from './migrate.js';

const taken = await migrate(readConfig().databaseUrl);
process.stdout.write(taken.length === 0 ? 'The schema is up to date.\n' : `Schema steps taken: ${taken.join(', ')}.\n`);
