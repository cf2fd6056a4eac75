// People, templates and lists of an installation, given by hand: npm run admin -- person|template|registers …
import { beReady } from './setup.mjs';

beReady();
await import('../dist/admin.js');
