// Puts our own server in the place of the adapter's, which would answer the whole network when the environment says so.
import { copyFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { root } from './run.mjs';

copyFileSync(resolve(root, 'scripts', 'server.mjs'), resolve(root, 'build', 'index.js'));
copyFileSync(resolve(root, 'scripts', 'certificate.mjs'), resolve(root, 'build', 'certificate.mjs'));
