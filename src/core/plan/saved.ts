/** Something saved, as a stranger: any object. */
export type Saved = Record<string, unknown>;

/** Whether a stranger’s value is an object at all. */
export const isSaved = (value: unknown): value is Saved =>
	typeof value === 'object' && value !== null && !Array.isArray(value);

/** Changes every object of a list; whatever else is there stays as it is. */
export const each = (list: unknown, change: (item: Saved) => Saved): unknown =>
	Array.isArray(list) ? list.map((item: unknown) => (isSaved(item) ? change(item) : item)) : list;

/** Adds what is missing to an object; what is no object stays as it is. */
export const fill = (value: unknown, defaults: Saved): unknown => (isSaved(value) ? { ...defaults, ...value } : value);
