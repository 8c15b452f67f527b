/**
 * What a link publishes of its settings for the others, by name. An owner adds its names in its own `offers.ts`
 * (`declare module`), so that a new link costs no line here.
 */
// eslint-disable-next-line @typescript-eslint/no-empty-object-type -- joined from the owners' declarations
export interface Facts {}
