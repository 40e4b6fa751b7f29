import { buildApp } from './app.js';
import { apiDocument } from './document.js';

// Prints the API document, for the generator of the web's client. Needs a database to start the modules against.
const app = await buildApp();
process.stdout.write(`${JSON.stringify(apiDocument(app), null, 2)}\n`, () => {
  void app.close().then(() => process.exit(0));
});
