/**
 * What every `import … from 'zod'` of the product gets (see `astro.config.mjs`). Zod would try whether it may make functions
 * from text, which the content security policy forbids, and a browser reports each try; so it is told before any schema is.
 */
import { config } from 'zod/v4';

config({ jitless: true });

export * from 'zod/v4';
