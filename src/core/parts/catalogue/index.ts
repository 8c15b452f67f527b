/**
 * The shipped catalogue: generic parts by class, with figures that are typical unless a row says otherwise.
 * A workshop's own parts stand beside it and take the place of a row with the same id.
 */
import type { Part } from '../schema';
import { boards } from './boards';
import { cooling } from './cooling';
import { leads } from './leads';
import { checked } from './make';
import { others } from './others';
import { receiving } from './receiving';
import { screens } from './screens';
import { sound } from './sound';
import { stores } from './stores';
import { supplies } from './supplies';

/** All parts that ship with Yphos, generic by class; checked by the schema when it is loaded. */
export const catalogue: readonly Part[] = checked([
	...boards,
	...supplies,
	...leads,
	...stores,
	...sound,
	...screens,
	...receiving,
	...cooling,
	...others
]);
