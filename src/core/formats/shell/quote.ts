/**
 * One word for a POSIX shell: single quotes keep every character, a single quote itself is written '\''.
 * Source: POSIX.1-2017, Shell Command Language 2.2.2 "Single-Quotes".
 */
export const shellQuote = (text: string): string => `'${text.replaceAll("'", "'\\''")}'`;

/** Quoted only where a shell would otherwise read something else; keeps generated scripts readable. */
export const shellWord = (text: string): string => (/^[A-Za-z0-9_@%+=:,./-]+$/.test(text) ? text : shellQuote(text));
