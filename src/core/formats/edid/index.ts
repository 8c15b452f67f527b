/**
 * EDID: what a screen says of itself, read from bytes and from the texts in which tools print it, and written for a screen that says
 * nothing or nothing true. Source: VESA E-EDID A.2, CTA-861-H, VESA DisplayID 1.3. Start at `read.ts`.
 */
export { fromBase64, fromHex, MOST_BYTES } from './bytes';
export { toBase64 } from '../base64';
export { BLOCK_BYTES, type Edid, type EdidCta, type EdidMode, type EdidRanges, type EdidSound } from './edid';
export { explainEdid, type ByteMeaning } from './explain';
export { findEdids, type FoundEdid } from './intake';
export { readEdid } from './read';
export { writeEdid, type WantedEdid } from './write';
