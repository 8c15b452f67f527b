import { writeFileSync } from 'node:fs';
import type { Finding, Fix } from '$core/link/finding';
import { judges } from '$core/judges';
import { assess } from '$core/engines/assess';
import { curesOf } from '$core/engines/cure';
import { workshopSchema, type Workshop } from '$core/plan/workshop';
import { complain, readPlanFile, Refusal, type PlanFile } from '../files';
import { safely } from '$core/basics/safely';
import { type Flags, type Command, text, say, sayJson, need } from '../say';
import { chosen, onlyOne, seenFrom } from '../endpoints';

export const check: Command = (args, flags) => {
	const { workshop, remarks, media } = readPlanFile(need(args, 'PLAN'));
	for (const remark of remarks) complain(remark);
	const wanted = text(flags, 'fix');
	if (wanted !== undefined) return fix(workshop, wanted, flags, media);
	const reports = chosen(workshop, flags).map((endpoint) => {
		const surroundings = seenFrom(workshop, endpoint, flags, media);
		const assessment = assess(judges, endpoint.plan, surroundings);
		const cures = (finding: Finding): readonly Fix[] => curesOf(judges, endpoint.plan, surroundings, finding);
		return { endpoint, assessment, cures };
	});
	if (flags.json)
		sayJson(
			reports.map(({ endpoint, assessment, cures }) => ({
				endpoint: endpoint.id,
				findings: assessment.findings.map((f) => ({
					id: f.id,
					link: f.link,
					level: f.level,
					title: f.title,
					why: f.why,
					fixes: cures(f).map(({ label }) => label)
				}))
			}))
		);
	else
		for (const { endpoint, assessment, cures } of reports) {
			say(`${endpoint.plan.brief.name} (${endpoint.id})`);
			if (assessment.findings.length === 0) say('  nothing found');
			for (const f of assessment.findings) {
				say(`  ${f.level.toUpperCase().padEnd(8)}${f.title}`);
				say(`          ${f.why}`);
				for (const [n, { label }] of cures(f).entries()) say(`          fix ${f.id}:${n + 1}  ${label}`);
			}
		}
	return reports.some(({ assessment }) => assessment.worst === 'stop') ? 1 : 0;
};

/** Presses one fix of one finding, and writes the mended workshop; the plan that was read is left as it is. */
function fix(workshop: Workshop, wanted: string, flags: Flags, media: PlanFile['media']): number {
	const out = text(flags, 'out');
	if (!out) throw new Refusal('--out FILE is missing: where the mended workshop is to stand.');
	const endpoint = onlyOne(workshop, flags);
	const { id, number = '1' } = /^(?<id>.+?)(?::(?<number>\d+))?$/.exec(wanted)?.groups ?? {};
	const surroundings = seenFrom(workshop, endpoint, flags, media);
	const { findings } = assess(judges, endpoint.plan, surroundings);
	const finding = findings.find((known) => known.id === id);
	if (!finding)
		throw new Refusal(
			`${endpoint.id} has no finding ${id}. It has: ${findings.map((known) => known.id).join(', ') || 'none'}.`
		);
	const cures = curesOf(judges, endpoint.plan, surroundings, finding);
	const chosenFix = cures[Number(number) - 1];
	if (!chosenFix) throw new Refusal(`${id} has ${cures.length || 'no'} fixes; number ${number} is none of them.`);
	const plan = chosenFix.apply(endpoint.plan, Date.now());
	const mended = {
		...workshop,
		endpoints: workshop.endpoints.map((known) => (known.id === endpoint.id ? { ...known, plan } : known))
	};
	const checked = safely(workshopSchema, mended);
	if (!checked.success) throw new Refusal(`That fix does not fit: ${checked.error.issues[0]!.message}`);
	writeFileSync(out, `${JSON.stringify(checked.data, null, '\t')}\n`);
	const { worst } = assess(judges, plan, seenFrom(checked.data, { ...endpoint, plan }, flags, media));
	say(`${endpoint.id}: ${chosenFix.label}. Written to ${out}; the worst that stands now: ${worst ?? 'nothing'}.`);
	return 0;
}
