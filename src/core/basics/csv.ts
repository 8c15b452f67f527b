/** A cell of CSV. A leading sign, which a spreadsheet would read as a formula, is given as text; numbers stay numbers. Source: RFC 4180. */
export const csvCell = (value: string | number): string => {
	const text = String(value);
	const safe = /^[=+\-@\t\r]/.test(text) && typeof value === 'string' ? `'${text}` : text;
	return /[",\n;]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe;
};
