// People, templates and lists of an installation, given by hand: npm run admin -- person|template|registers …
import { needBuild, needPackages } from './setup.mjs';

try {
  needPackages();
  needBuild();
} catch (error) {
  process.stderr.write(`nesting: ${error.message}\n`);
  process.exit(1);
}
await import('../dist/admin.js');
