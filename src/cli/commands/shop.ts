import { chain } from '$core/chain';
import { costOfUse, shoppingCsv, shoppingList } from '$core/engines/shopping';
import { printable, readPlanFile } from '../files';
import { type Command, sayJson, need } from '../say';
import { chosen } from '../endpoints';

export const shop: Command = (args, flags) => {
	const { workshop } = readPlanFile(need(args, 'PLAN'));
	const ids = chosen(workshop, flags).map(({ id }) => id);
	const list = shoppingList(chain, workshop, ids);
	if (flags.json) sayJson({ ...list, use: costOfUse(chain, workshop, ids) });
	else process.stdout.write(printable(shoppingCsv(list, workshop), '\r'));
	return 0;
};
