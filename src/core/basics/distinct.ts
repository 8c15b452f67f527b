import type { Finding } from '../link/finding';

/** Gives findings that would share an id, because the same parts are there more than once, ids of their own. */
export function distinct(findings: readonly Finding[]): Finding[] {
	const seen = new Map<string, number>();
	return findings.map((finding) => {
		const times = (seen.get(finding.id) ?? 0) + 1;
		seen.set(finding.id, times);
		return times === 1 ? finding : { ...finding, id: `${finding.id}.${times}` };
	});
}
