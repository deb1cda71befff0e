import { ensureBuilt, ensureInstalled, needNode } from './machine.mjs';

/** `npm run build`: installs and builds what is missing, so that whoever starts the app later has nothing to write. */

needNode();
ensureInstalled();
ensureBuilt();
