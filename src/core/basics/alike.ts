const own = (value: object, key: string): unknown =>
	Object.hasOwn(value, key) ? (value as Record<string, unknown>)[key] : undefined;

/** Whether two plain JSON values say the same, in whatever order of keys; one that is `undefined` is as good as absent. */
export function alike(a: unknown, b: unknown): boolean {
	if (Object.is(a, b)) return true;
	if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
	if (Array.isArray(a) || Array.isArray(b))
		return Array.isArray(a) && Array.isArray(b) && a.length === b.length && a.every((item, n) => alike(item, b[n]));
	for (const key of Object.keys(a)) if (!alike(own(a, key), own(b, key))) return false;
	for (const key of Object.keys(b)) if (!Object.hasOwn(a, key) && own(b, key) !== undefined) return false;
	return true;
}
