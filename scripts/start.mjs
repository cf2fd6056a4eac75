// A real installation: npm packages and the build, then the server with what the environment says.
import { beReady } from './setup.mjs';

beReady();
await import('../dist/server.js');
