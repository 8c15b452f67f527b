import { describe, expect, it } from 'vitest';
import { demoWorkshop } from '../../../../../demo/workshop';
import { chain } from '../../../chain';
import { benchFor } from '../../../engines/benchFor';
import { contextFor } from '../../../engines/context';
import { cardTree } from '../../../engines/machine';
import { rehearse } from '../../../engines/rehearse';
import { write } from '../../../engines/write';
import { rehearsed } from '../../../rehearsals';
import { writers } from '../../../writers';

const { id, plan } = demoWorkshop.endpoints.find((endpoint) => endpoint.id === 'gallery-wall')!;
const context = contextFor(chain, demoWorkshop, id);
const card = cardTree(write(writers, plan, context));
const RULES = 'boot/yphos/root/etc/nftables.conf';
const eyeWith = (rules: (text: string) => string): string => {
	const tree = new Map(card);
	const { text } = tree.get(RULES)!;
	tree.set(RULES, { ...tree.get(RULES)!, text: rules(text) });
	const apply = tree.get('boot/yphos/apply.sh')!;
	// It would refuse a file with another digest than the set's.
	tree.set('boot/yphos/apply.sh', {
		...apply,
		text: apply.text.replace('|| [[ $(sha256sum', '|| false && [[ $(sha256sum')
	});
	const { tracks } = rehearse({
		links: rehearsed,
		card: tree,
		bench: benchFor(writers, plan, context),
		startUtcMs: Date.UTC(2026, 10, 24, 11),
		forMs: 120_000
	});
	return tracks.find((track) => track.id === 'eye')!.verdict!.words;
};

describe('what a computer sends to the screen', () => {
	it('is seen where the firewall lets it in, and not where its port is shut', () => {
		expect(eyeWith((text) => text)).toMatch(/^Picture after/);
		const shut = eyeWith((text) => text.replace(/.*near4 udp dport 5600 accept\n/, ''));
		expect(shut).not.toMatch(/^Picture after/);
	});
});
