/** The browser's language, which decides between 12 and 24 hours; British English, with 24, where it has none. */
const language = (): string => navigator.language || 'en-GB';

/** Hours and minutes. `zone` as the tz database spells it; the browser's own when it is left out. */
export const timeOfDay = (at: Date, zone?: string): string =>
	at.toLocaleTimeString(language(), { hour: '2-digit', minute: '2-digit', timeZone: zone });

/** A day and its time. */
export const dayAndTime = (at: Date): string =>
	at.toLocaleString(language(), { dateStyle: 'medium', timeStyle: 'short' });
