// A real installation: npm packages and the build, then the server with what the environment says.
import { needBuild, needPackages } from './setup.mjs';

try {
  needPackages();
  needBuild();
} catch (error) {
  process.stderr.write(`nesting: ${error.message}\n`);
  process.exit(1);
}
await import('../dist/server.js');
