import { z } from 'zod';

/** Zod would try whether it may compile code; our pages forbid that, and the browser would note each try as a breach. */
z.config({ jitless: true });
