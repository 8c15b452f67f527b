/**
 * The release that a card set is written for: options of programs and names of packages differ from one to the next, so apply.sh
 * refuses another before it touches anything. Source: os-release(5), VERSION_ID=, as base-files of that release has it.
 */
export const RELEASE = { versionId: '12', words: 'Debian 12 (bookworm)' } as const;
